/**
 * Corrections of depth painted by hand, and what is given back of the untouched photo.
 *
 * <p>A {@link app.yubble.core.touchup.Touchup} is an action with a strength and the strokes of a brush; strokes are points in
 * shares of the picture, so the same touch-up is drawn at any size. {@link app.yubble.core.touchup.Painting} turns strokes into
 * a {@link app.yubble.core.touchup.Mask} and touch-ups into changed nearness.
 */
@NullMarked
package app.yubble.core.touchup;

import org.jspecify.annotations.NullMarked;
