package app.yubble.core.clip;

/**
 * A frame and its time.
 *
 * @param frame counted from 0
 * @param micros from the beginning of the shot in millionths of a second; every frame has a time of its own, because many clips
 *     do not keep an even pace
 */
public record Moment(int frame, long micros) {
    /** The one moment of a photo. */
    public static final Moment ONLY = new Moment(0, 0);

    public Moment {
        if (frame < 0 || micros < 0) {
            throw new IllegalArgumentException(
                    "a moment must not lie before the shot begins, found frame " + frame + " at " + micros + " us");
        }
    }
}
