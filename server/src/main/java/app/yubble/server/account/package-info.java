/** Who uses Yubble, and signing in. */
@NullMarked
package app.yubble.server.account;

import org.jspecify.annotations.NullMarked;
