/** Versions of a shot, their recipes and undo history, and previews. */
@NullMarked
package app.yubble.server.editing;

import org.jspecify.annotations.NullMarked;
