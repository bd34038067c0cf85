/**
 * The air between the camera and what it sees: mist, and the tone of what is out of focus.
 *
 * <p>In: a picture in linear light, its nearness and its defocus field. Out: the picture as it would be in that air. It is made before
 * the lens, because mist lies in the scene: a lens blurs it with everything else. Laid over afterwards it would have hard edges wherever
 * something blurred in front spreads over what lies behind it. Tone is given by how much a point is going to be blurred, for the same
 * reason.
 *
 * <p>Mist: {@code out = t in + (1 - t) air}, with the transmittance {@code t} falling exponentially with the way through the mist
 * (Koschmieder's law; see Narasimhan and Nayar, "Vision and the Atmosphere", 2002). The way is measured in {@code 1 / (nearness + s)}:
 * nearness is normalised, so that its 0 is far and not infinitely far.
 */
@NullMarked
package app.yubble.core.atmosphere;

import org.jspecify.annotations.NullMarked;
