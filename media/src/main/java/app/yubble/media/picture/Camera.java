package app.yubble.media.picture;

import java.util.OptionalDouble;

/**
 * What the file says about how it was taken.
 *
 * @param focalLength in millimetres
 * @param sensorWidth in millimetres, from the 35 mm equivalent or the focal-plane resolution
 * @param fNumber the aperture it was taken with
 * @param distance to the subject in metres
 */
public record Camera(
        OptionalDouble focalLength, OptionalDouble sensorWidth, OptionalDouble fNumber, OptionalDouble distance) {
    public static final Camera UNKNOWN =
            new Camera(OptionalDouble.empty(), OptionalDouble.empty(), OptionalDouble.empty(), OptionalDouble.empty());
}
