/** Deliveries: one export each. */
@NullMarked
package app.yubble.server.delivery;

import org.jspecify.annotations.NullMarked;
