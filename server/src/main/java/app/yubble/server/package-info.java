/** The web server. Packages are by feature; every record belongs to an account and every query is scoped to it. */
@NullMarked
package app.yubble.server;

import org.jspecify.annotations.NullMarked;
