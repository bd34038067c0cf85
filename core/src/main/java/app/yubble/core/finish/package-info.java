/**
 * What makes the blur belong to the photo: its own noise put back, and crispness of what is sharp.
 *
 * <p>In: pictures in linear light. A lens blurs the scene and not the noise of the sensor, but a lens that is drawn afterwards blurs both.
 * {@link app.yubble.core.finish.Noise} measures what there was, {@link app.yubble.core.finish.Grain} gives back what the blur took.
 * Numbers of noise are those of square roots of linear light, in which noise of light is the same at all brightnesses and steps of a
 * file are nearly even.
 */
@NullMarked
package app.yubble.core.finish;

import org.jspecify.annotations.NullMarked;
