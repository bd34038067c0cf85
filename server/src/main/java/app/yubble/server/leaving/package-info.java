/** Everything of an account to take along, and its end. */
@NullMarked
package app.yubble.server.leaving;

import org.jspecify.annotations.NullMarked;
