/**
 * The lens: from a picture and its defocus field to the picture a real aperture would have drawn.
 *
 * <p>In: a picture in linear light and the signed blur radius of each pixel (positive behind the sharp band). Out: a
 * picture of the same size. Steps, tile by tile:
 *
 * <ol>
 *   <li>Pixels at a depth edge hold a mixture of both sides. They are given to the farther side, in its colour, and what
 *       the nearer side has of them becomes a piece with its own colour and coverage ({@link EdgeSplit}).
 *   <li>What stands in front of the band is cut into soft layers of radius and composed front to back, with its blurred
 *       coverage as alpha; the picture behind it is filled in from its surroundings.
 *   <li>Everything behind the band is cut into soft layers and composed back to front: the farthest is spread under
 *       everything nearer (it is divided by the blurred share of what is not nearer), so a sharp subject lends no colour
 *       to the blur behind it and no light line appears.
 *   <li>The band itself, its pieces, and what stands in front are laid over.
 * </ol>
 *
 * <p>Radii above a few pixels are blurred on reduced levels, and only where a layer has something, so the time hardly
 * grows with the radius or the number of layers. A constant picture stays constant to float rounding; pixels in the band
 * away from depth edges are returned bit for bit. Beyond its border the picture goes on as the mean of what is blurred
 * into the border from within.
 *
 * <p>Sources: layers composed back to front after Kraus and Strengert, "Depth-of-Field Rendering by Pyramidal Image
 * Processing" (2007), departing in that kernels are the disc's real shape and hidden parts are filled by normalised
 * convolution; running sums along rows as in Crow, "Summed-Area Tables" (1984), but per column, for any convex kernel.
 * Limits: the filling of hidden background is smooth; a wire thinner than a pixel of the depth map is blurred with what
 * lies behind it; light that the squeezed disc loses in a real barrel is kept.
 */
@NullMarked
package app.yubble.core.lens;

import org.jspecify.annotations.NullMarked;
