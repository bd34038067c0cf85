/** How a photo comes in: it is stored, and its depth is estimated. */
@NullMarked
package app.yubble.server.arrival;

import org.jspecify.annotations.NullMarked;
