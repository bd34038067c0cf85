/**
 * A point on something that moves, followed through a clip.
 *
 * <p>In goes the brightness of frames in their order and where the point is at one or more of them; out comes where it is at every other,
 * whether it is seen there, and whether that is sure. From a frame to the next the point goes with those around it (Lucas and Kanade,
 * there and back), then the patch around it is laid over patches that were taken before: the newest, and the first, so that small errors do
 * not add up. What is hidden is looked for by its appearance until it is seen again. Coordinates are in pixels of the frames, the middle of
 * the first pixel at 0, 0.
 *
 * <p>It cannot tell two things apart that look the same; a lamp that comes back where its twin hung before is taken for it.
 */
@NullMarked
package app.yubble.core.follow;

import org.jspecify.annotations.NullMarked;
