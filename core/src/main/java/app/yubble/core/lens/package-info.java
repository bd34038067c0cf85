/**
 * The lens: from a picture and its defocus field to the picture a real aperture would have drawn.
 *
 * <p>In: a picture in linear light and the signed blur radius of each pixel (positive behind the sharp band). Out: a
 * picture of the same size. Steps, tile by tile:
 *
 * <ol>
 *   <li>Pixels beside a depth edge hold a mixture of both sides; outside the sharp band their colour is replaced by
 *       that of their own side.
 *   <li>What stands in front of the band is lifted off; the picture behind it is filled in from its surroundings.
 *   <li>Everything behind and in the band is cut into soft layers of radius and composed back to front: the farthest
 *       is spread under everything nearer (it is divided by its own blurred coverage), so a sharp subject lends no
 *       colour to the blur behind it and no light line appears.
 *   <li>What stands in front is composed in layers with its blurred coverage as alpha and laid over.
 * </ol>
 *
 * <p>Radii above 3 pixels are blurred on reduced levels, so the time hardly grows with the radius. A constant
 * picture stays constant to float rounding; pixels in the band away from depth edges are returned bit for bit.
 * Borders are continued by mirroring.
 *
 * <p>Sources: layers composed back to front after Kraus and Strengert, "Depth-of-Field Rendering by Pyramidal Image
 * Processing" (2007), departing in that kernels are the disc's real shape and hidden parts are filled by normalised
 * convolution; running sums along rows as in Crow, "Summed-Area Tables" (1984), but per row, for any convex kernel.
 * Limits: the filling of hidden background is smooth; hair is cut at the depth map's edge.
 */
@NullMarked
package app.yubble.core.lens;

import org.jspecify.annotations.NullMarked;
