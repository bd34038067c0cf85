/** Masks from files. */
@NullMarked
package app.yubble.server.mask;

import org.jspecify.annotations.NullMarked;
