/** Shoots, the shots in them, their depth maps, and what the line draws them from. */
@NullMarked
package app.yubble.server.shoot;

import org.jspecify.annotations.NullMarked;
