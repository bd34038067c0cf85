/** Shoots and shots: bringing photos in, their depth maps, and what the interface draws from them. */
@NullMarked
package app.yubble.server.shoot;

import org.jspecify.annotations.NullMarked;
