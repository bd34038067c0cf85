/**
 * What is sharp, and how unsharp the rest is.
 *
 * <p>In: nearness in [0,1] (1 nearest), a {@link app.yubble.core.focus.SharpBand} and pixels of blur per unit of
 * nearness. Out: the <em>defocus field</em>, the signed blur radius of every pixel in pixels of the picture:
 * positive behind the band, negative in front of it, zero inside.
 *
 * <p>A band may be tilted, as by a lens tilted against the sensor: its sharp plane {@code aX + bY + cZ = 1} is, in the picture,
 * {@code 1 / Z = a x + b y + c}, so the band's nearness changes linearly across the picture.
 *
 * <p>For a thin lens the radius is linear in nearness: a point at distance z_d seen by a lens focused at z has a blur
 * diameter of {@code f^2 / (N (z - f)) * |1 - z / z_d|} on the sensor, and {@code 1 / z_d} is what nearness measures.
 * The falloff replaces the corner of that function at the band's edge by a parabola that joins it smoothly, so that
 * blur grows from nothing instead of switching on. Counter-example: easing the radius by a factor instead would make
 * far things sharper as well, without end; here the loss is constant, half the falloff's width.
 */
@NullMarked
package app.yubble.core.focus;

import org.jspecify.annotations.NullMarked;
