package app.yubble.core.recipe;

import app.yubble.core.depth.DepthTrim;
import app.yubble.core.ladder.Rung;
import app.yubble.core.setting.Declared;
import app.yubble.core.setting.Setting;
import app.yubble.core.setting.Unfolded;
import app.yubble.core.setting.Unit;
import app.yubble.core.setting.Usual;
import java.util.List;

/** Where depth comes from and how it is corrected as a whole. */
public record DepthChoice(
        @Setting(
                means =
                        "where depth comes from: from the picture, from the photo's file, or from a depth map that was brought in")
        Source source,

        @Setting(
                called = "Snap to edges",
                means = "how strongly depth edges follow the edges of the picture",
                usual = 1,
                usualBy = "source",
                unit = Unit.SHARE)
        double snap,

        @Unfolded DepthTrim trim,

        @Setting(means = "things from the nearest to the farthest, whose order the map follows; at most " + Rung.MOST)
        List<Rung> ladder) {
    private static final Declared<DepthChoice> SETTINGS = Declared.of(DepthChoice.class);

    /** The kinds of depth source. */
    public enum Source implements Usual {
        ESTIMATED(1),
        CAMERA(0.5),
        FILE(0);

        private final double usualSnap;

        Source(double usualSnap) {
            this.usualSnap = usualSnap;
        }

        /** The snap: an estimate is soft, a camera's map coarse, a map that somebody made is meant as it is. */
        @Override
        public double usual() {
            return usualSnap;
        }
    }

    public static final DepthChoice ESTIMATE = of(Source.ESTIMATED);

    public DepthChoice {
        ladder = Rung.ladder(ladder);
        SETTINGS.check(source, snap, trim, ladder);
    }

    /** The map of this source as it usually needs to be taken. */
    public static DepthChoice of(Source source) {
        return new DepthChoice(source, source.usual(), DepthTrim.NONE, List.of());
    }

    public DepthChoice withSnap(double value) {
        return new DepthChoice(source, value, trim, ladder);
    }

    public DepthChoice withTrim(DepthTrim value) {
        return new DepthChoice(source, snap, value, ladder);
    }

    public DepthChoice withLadder(List<Rung> value) {
        return new DepthChoice(source, snap, trim, value);
    }
}
