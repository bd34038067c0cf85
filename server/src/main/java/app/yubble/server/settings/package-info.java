/** What somebody may choose for all of their shots, and what this installation has. */
@NullMarked
package app.yubble.server.settings;

import org.jspecify.annotations.NullMarked;
