/**
 * Planes of float samples and the operations every other package builds on.
 *
 * <p>A {@link app.yubble.core.raster.Plane} is row-major, one float per pixel, row stride = width. A
 * {@link app.yubble.core.raster.Picture} is three planes of equal size in <em>linear light</em>, in the primaries of
 * its source; 1.0 is the source's white, values above 1 are allowed, negative values are not produced by any
 * operation here unless the input has them. Pixel (x, y) covers the square from x to x+1 and y to y+1: its centre is
 * at x + 0.5, so that sizes scale without a shift. Every {@link app.yubble.core.raster.Region} is half open.
 *
 * <p>At a border, operations with a neighbourhood say in their own documentation whether they shrink the
 * neighbourhood or mirror the picture. Work is split into bands of rows over the common pool
 * ({@link app.yubble.core.raster.Bands}); results do not depend on how many bands there are.
 */
@NullMarked
package app.yubble.core.raster;

import org.jspecify.annotations.NullMarked;
