/** Who may use how much memory and for how long, and what is kept because it may soon be wanted again. */
@NullMarked
package app.yubble.server.memory;

import org.jspecify.annotations.NullMarked;
