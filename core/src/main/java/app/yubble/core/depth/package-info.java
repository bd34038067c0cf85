/**
 * Depth maps: estimating one and bringing it to the size of the picture.
 *
 * <p>A depth map is <em>nearness</em> in [0,1], normalised inverse distance: 1 is the nearest, 0 the farthest point. It
 * may be smaller than its picture but has its shape. An {@link app.yubble.core.depth.DepthEstimator} makes one from a
 * picture; {@link app.yubble.core.depth.DepthEdges} brings one to a picture's size: an estimate by letting it follow
 * the picture's edges, a map that somebody made by taking the sample under each pixel, because an average of two
 * depths is a depth at which nothing stands.
 */
@NullMarked
package app.yubble.core.depth;

import org.jspecify.annotations.NullMarked;
