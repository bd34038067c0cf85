/** A MariaDB of our own on loopback, for an installation on one machine and for tests. */
@NullMarked
package app.yubble.server.database;

import org.jspecify.annotations.NullMarked;
