package app.yubble.core.recipe;

import app.yubble.core.clip.Mark;
import app.yubble.core.setting.Declared;
import app.yubble.core.setting.Setting;
import java.util.List;
import java.util.stream.Stream;

/** What changes over the time of a clip. A list without marks leaves its values to the recipe. */
public record Marks(
        @Setting(means = "of the sharp band, in order; at most " + MOST)
        List<BandMark> band,

        @Setting(means = "of aperture and strength, in order; at most " + MOST)
        List<ApertureMark> aperture,

        @Setting(means = "of both gains, in order; at most " + MOST)
        List<GainMark> gain,

        @Setting(means = "of the opacity, in order; at most " + MOST)
        List<OpacityMark> opacity) {
    private static final Declared<Marks> SETTINGS = Declared.of(Marks.class);
    /** A list; a mark a second for over half an hour, and a recipe stays within what a request may have. */
    private static final int MOST = 2000;

    public static final Marks NONE = Declared.usual(Marks.class);

    public Marks {
        SETTINGS.check(band, aperture, gain, opacity);
        band = ordered(band, "the band");
        aperture = ordered(aperture, "the aperture");
        gain = ordered(gain, "the gains");
        opacity = ordered(opacity, "the opacity");
    }

    private static <M extends Mark> List<M> ordered(List<M> marks, String of) {
        if (marks.size() > MOST) {
            throw new IllegalArgumentException(of + " has at most " + MOST + " marks, found " + marks.size());
        }
        Mark.requireOrder(marks, of);
        return List.copyOf(marks);
    }

    public Marks withBand(List<BandMark> value) {
        return new Marks(value, aperture, gain, opacity);
    }

    public Marks withLens(List<ApertureMark> newAperture, List<GainMark> newGain) {
        return new Marks(band, newAperture, newGain, opacity);
    }

    public Marks withOpacity(List<OpacityMark> value) {
        return new Marks(band, aperture, gain, value);
    }

    public boolean isEmpty() {
        return all().findAny().isEmpty();
    }

    /** All of them. */
    public Stream<Mark> all() {
        return Stream.of(band, aperture, gain, opacity).flatMap(List::stream);
    }

    /** When there are any, rising, each time once. */
    public List<Double> times() {
        return all().map(Mark::at).sorted().distinct().toList();
    }

    /** The plain recipe at a time. */
    Recipe on(Recipe recipe, double seconds) {
        Recipe out = recipe.withMarks(NONE);
        if (!band.isEmpty()) {
            out = out.withBand(Mark.valueAt(band, seconds, BandMark::band, BandMark::between));
        }
        if (!aperture.isEmpty()) {
            out = out.withAperture(
                    Mark.valueAt(aperture, seconds, mark -> mark.on(recipe.aperture()), ApertureMark::between));
        }
        if (!gain.isEmpty()) {
            out = out.withGain(Mark.valueAt(gain, seconds, GainMark::gain, GainMark::between));
        }
        if (!opacity.isEmpty()) {
            out = out.withOpacity(Mark.valueAt(opacity, seconds, OpacityMark::opacity, Mark::mixed));
        }
        return out;
    }
}
