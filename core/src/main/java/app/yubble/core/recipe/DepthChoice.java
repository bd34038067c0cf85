package app.yubble.core.recipe;

import app.yubble.core.depth.DepthTrim;

/**
 * Where depth comes from and how it is corrected as a whole.
 *
 * @param source estimated from the picture, stored in the photo by the camera, or a file that was brought in
 * @param snap how strongly depth edges follow the picture, in [0,1]
 * @param trim corrections of the whole map
 */
public record DepthChoice(Source source, double snap, DepthTrim trim) {
    /** The kinds of depth source. */
    public enum Source {
        ESTIMATED(1),
        CAMERA(0.5),
        FILE(0);

        private final double usualSnap;

        Source(double usualSnap) {
            this.usualSnap = usualSnap;
        }

        /** An estimate is soft, a camera's map coarse, a map that somebody made is meant as it is. */
        public double usualSnap() {
            return usualSnap;
        }
    }

    public static final DepthChoice ESTIMATE = of(Source.ESTIMATED);

    public DepthChoice {
        if (!(snap >= 0 && snap <= 1)) {
            throw new IllegalArgumentException("depth snap must be in 0..1, found " + snap);
        }
    }

    /** The map of this source as it usually needs to be taken. */
    public static DepthChoice of(Source source) {
        return new DepthChoice(source, source.usualSnap(), DepthTrim.NONE);
    }

    public DepthChoice withSnap(double value) {
        return new DepthChoice(source, value, trim);
    }

    public DepthChoice withTrim(DepthTrim value) {
        return new DepthChoice(source, snap, value);
    }
}
