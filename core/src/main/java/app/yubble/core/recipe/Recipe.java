package app.yubble.core.recipe;

import app.yubble.core.atmosphere.Atmosphere;
import app.yubble.core.clip.Moment;
import app.yubble.core.finish.Finish;
import app.yubble.core.focus.Gain;
import app.yubble.core.focus.SharpBand;
import app.yubble.core.follow.Follow;
import app.yubble.core.lens.Aperture;
import app.yubble.core.lens.Disc;
import app.yubble.core.lens.Glints;
import app.yubble.core.setting.Declared;
import app.yubble.core.setting.Setting;
import app.yubble.core.setting.Unit;
import app.yubble.core.shape.BlurShape;
import app.yubble.core.touchup.Span;
import app.yubble.core.touchup.Touchup;
import java.util.List;
import java.util.function.Function;

/** The settings of every stage. */
public record Recipe(
        DepthChoice depth,

        @Setting(means = "corrections painted by hand, in the order in which they act; at most " + MOST_TOUCHUPS)
        List<Touchup> touchups,

        SharpBand band,
        Aperture aperture,
        Gain gain,
        Disc disc,
        Glints glints,
        Atmosphere atmosphere,
        Finish finish,

        @Setting(
                called = "Opacity",
                means = "of the whole effect over the untouched photo",
                usual = 1,
                unit = Unit.SHARE)
        double opacity,

        Marks marks,

        @Setting(means = "points followed through a clip, later ones over earlier ones; at most " + MOST_FOLLOWS)
        List<Follow> follows,

        @Setting(
                means =
                        "blur that is placed by hand, besides the depth; where several lie over each other the strongest counts; at most "
                                + MOST_SHAPES)
        List<BlurShape> shapes)
        implements Course {
    private static final Declared<Recipe> SETTINGS = Declared.of(Recipe.class);

    /** Microseconds of a second. */
    private static final double MICROS = 1e6;

    /** So that a recipe stays within what a request may have. */
    public static final int MOST_TOUCHUPS = 500;

    /** Each is tracked through the clip. */
    public static final int MOST_FOLLOWS = 20;

    /** Each is drawn into the defocus field. */
    public static final int MOST_SHAPES = 100;

    /** A moderate blur with everything still sharp: the band is put on the subject once depth is known. */
    public static final Recipe INITIAL = Declared.usual(Recipe.class);

    public Recipe {
        touchups = some(touchups, Touchup::id, MOST_TOUCHUPS, "touch-ups");
        follows = some(follows, Follow::id, MOST_FOLLOWS, "follows");
        shapes = some(shapes, BlurShape::id, MOST_SHAPES, "blur shapes");
        SETTINGS.check(
                depth,
                touchups,
                band,
                aperture,
                gain,
                disc,
                glints,
                atmosphere,
                finish,
                opacity,
                marks,
                follows,
                shapes);
    }

    private static <T> List<T> some(List<T> all, Function<T, String> id, int most, String called) {
        if (all.size() > most) {
            throw new IllegalArgumentException("a recipe has at most " + most + " " + called + ", found " + all.size());
        }
        if (all.stream().map(id).distinct().count() < all.size()) {
            throw new IllegalArgumentException("two " + called + " of a recipe have one id");
        }
        return List.copyOf(all);
    }

    @Override
    public Recipe at(Moment moment) {
        double seconds = moment.micros() / MICROS;
        boolean spans = touchups.stream().anyMatch(each -> !each.span().equals(Span.ALL));
        Recipe now = spans
                ? withTouchups(touchups.stream().map(each -> each.at(seconds)).toList())
                : this;
        Recipe plain = follows.isEmpty() ? now : now.withFollows(List.of());
        Recipe placed = shapes.isEmpty()
                ? plain
                : plain.withShapes(shapes.stream()
                        .map(each -> each.at(seconds, null))
                        .filter(BlurShape::acts)
                        .toList());
        return marks.isEmpty() ? placed : marks.on(placed, seconds);
    }

    /** The same over all of the photo: nothing of it is revealed, nor does it show through. */
    public Recipe everywhere() {
        return withOpacity(1)
                .withTouchups(touchups.stream()
                        .filter(each -> each.action() != Touchup.Action.REVEAL)
                        .toList());
    }

    public Recipe withDepth(DepthChoice value) {
        return SETTINGS.replaced(this, "depth", value);
    }

    public Recipe withTouchups(List<Touchup> value) {
        return SETTINGS.replaced(this, "touchups", value);
    }

    public Recipe withBand(SharpBand value) {
        return SETTINGS.replaced(this, "band", value);
    }

    public Recipe withAperture(Aperture value) {
        return SETTINGS.replaced(this, "aperture", value);
    }

    public Recipe withGain(Gain value) {
        return SETTINGS.replaced(this, "gain", value);
    }

    public Recipe withDisc(Disc value) {
        return SETTINGS.replaced(this, "disc", value);
    }

    public Recipe withGlints(Glints value) {
        return SETTINGS.replaced(this, "glints", value);
    }

    public Recipe withAtmosphere(Atmosphere value) {
        return SETTINGS.replaced(this, "atmosphere", value);
    }

    public Recipe withFinish(Finish value) {
        return SETTINGS.replaced(this, "finish", value);
    }

    public Recipe withMarks(Marks value) {
        return SETTINGS.replaced(this, "marks", value);
    }

    public Recipe withFollows(List<Follow> value) {
        return SETTINGS.replaced(this, "follows", value);
    }

    public Recipe withShapes(List<BlurShape> value) {
        return SETTINGS.replaced(this, "shapes", value);
    }

    public Recipe withOpacity(double value) {
        return SETTINGS.replaced(this, "opacity", value);
    }
}
