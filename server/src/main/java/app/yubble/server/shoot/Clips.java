package app.yubble.server.shoot;

import app.yubble.core.follow.Put;
import app.yubble.core.recipe.Recipe;
import app.yubble.core.shape.ShapeMark;
import app.yubble.core.touchup.KeptAt;
import app.yubble.server.problem.RefusedException;
import java.util.List;
import java.util.stream.Stream;

/** What goes for all clips. */
public final class Clips {
    /** Microseconds of a second. */
    private static final double MICROS = 1e6;

    private Clips() {}

    /** Of marks, and of where follows were put and kept subjects pointed out; rising. */
    private static List<Double> times(Recipe recipe) {
        Stream<Double> puts =
                recipe.follows().stream().flatMap(each -> each.puts().stream().map(Put::at));
        Stream<Double> placed =
                recipe.shapes().stream().flatMap(each -> each.marks().stream().map(ShapeMark::at));
        Stream<Double> kept = recipe.touchups().stream()
                .flatMap(each -> each.start().kept().stream().map(KeptAt::at));
        return Stream.of(recipe.marks().times().stream(), puts, placed, kept)
                .flatMap(each -> each)
                .sorted()
                .toList();
    }

    /** Whether all marks lie within the shot; a photo has no time. */
    public static boolean marksFit(Recipe recipe, Shot shot) {
        List<Double> times = times(recipe);
        Long micros = shot.micros();
        return times.isEmpty() || micros != null && times.get(times.size() - 1) <= micros / MICROS;
    }

    /** @throws RefusedException when a mark lies behind the clip's end, or the shot is a photo and has marks */
    public static void requireMarksWithin(Recipe recipe, Shot shot) {
        List<Double> times = times(recipe);
        Long micros = shot.micros();
        if (marksFit(recipe, shot)) {
            return;
        }
        if (!shot.isClip()) {
            throw new RefusedException("A photo has no marks, follows and keeps nothing: it has one moment only.");
        }
        double last = times.get(times.size() - 1);
        if (micros != null) {
            throw new RefusedException("A mark or a followed point lies at " + last + " s, but the clip is only "
                    + micros / MICROS + " s long.");
        }
    }
}
