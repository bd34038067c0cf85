package app.yubble.server.shoot;

import app.yubble.core.recipe.Recipe;
import app.yubble.server.problem.RefusedException;
import java.util.List;

/** What goes for all clips. */
public final class Clips {
    /** Microseconds of a second. */
    private static final double MICROS = 1e6;

    private Clips() {}

    /** @throws RefusedException when a mark lies behind the clip's end, or the shot is a photo and has marks */
    public static void requireMarksWithin(Recipe recipe, Shot shot) {
        List<Double> times = recipe.marks().times();
        if (times.isEmpty()) {
            return;
        }
        Long micros = shot.micros();
        if (!shot.isClip()) {
            throw new RefusedException("A photo has no marks: it has one moment only.");
        }
        double last = times.get(times.size() - 1);
        if (micros != null && last > micros / MICROS) {
            throw new RefusedException(
                    "A mark lies at " + last + " s, but the clip is only " + micros / MICROS + " s long.");
        }
    }
}
