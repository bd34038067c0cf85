/** Files with layers, for programs that work with them. */
@NullMarked
package app.yubble.media.layered;

import org.jspecify.annotations.NullMarked;
