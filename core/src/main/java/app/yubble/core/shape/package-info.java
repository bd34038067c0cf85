/**
 * Blur that is placed by hand, besides the depth: ellipses, rectangles and straight bands with a soft border.
 *
 * <p>In: the defocus field, nearness and {@link app.yubble.core.shape.BlurShape}s. Out: the field with radii made larger where a shape
 * lies, so that the lens draws its blur as any other, with the same discs and the same right edges. A shape never makes anything sharper.
 *
 * <p>Its border is said as the width from a tenth to nine tenths of its strength: over that width the radius rises smoothly, half of it
 * inside and half outside of the outline. Counter-example: a mask that is blurred instead would round the corners and, for a narrow shape,
 * lose its strength long before.
 */
@NullMarked
package app.yubble.core.shape;

import org.jspecify.annotations.NullMarked;
