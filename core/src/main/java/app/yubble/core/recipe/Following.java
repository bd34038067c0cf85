package app.yubble.core.recipe;

import app.yubble.core.clip.Ease;
import app.yubble.core.clip.Moment;
import app.yubble.core.focus.SharpBand;
import app.yubble.core.follow.Follow;
import app.yubble.core.follow.Wake;
import app.yubble.core.follow.Way;
import app.yubble.core.shape.BlurShape;
import java.util.List;
import java.util.OptionalDouble;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;

/**
 * A recipe whose sharp band keeps to what is followed. Later follows come over earlier ones, each as strongly as its span says. Marks of
 * the band take over from the first to the last of them, but for pieces of time of which a mark says that it follows there; next to marks
 * the one goes smoothly over into the other. Blur shapes that are tied to a point move along with it.
 *
 * @param wakes the depth that is known under a follow; null for one that was not tracked yet, which changes nothing
 * @param ways where a follow is known to be, for blur shapes that are tied to it
 */
public record Following(Recipe recipe, Function<Follow, @Nullable Wake> wakes, Function<Follow, @Nullable Way> ways)
        implements Course {
    /** Microseconds of a second. */
    private static final double MICROS = 1e6;
    /** Seconds in which a mark hands over to what is followed, as fast as a quick pull. */
    static final double HAND_OVER = 0.5;

    @Override
    public Recipe at(Moment moment) {
        double seconds = moment.micros() / MICROS;
        Recipe plain = recipe.at(moment);
        SharpBand band = plain.band();
        double free = free(recipe.marks().band(), seconds);
        if (free > 0) {
            SharpBand followed = band;
            for (Follow each : recipe.follows()) {
                double share = each.focus() ? each.span().at(seconds) : 0;
                Wake wake = share > 0 ? wakes.apply(each) : null;
                OptionalDouble depth =
                        wake == null ? OptionalDouble.empty() : wake.nearnessAt(seconds + each.lead(), each.smooth());
                if (depth.isPresent()) {
                    followed = BandMark.between(followed, around(depth.getAsDouble(), each.width(), band), share);
                }
            }
            band = BandMark.between(band, followed, free);
        }
        Recipe focused = plain.withBand(band);
        boolean tied =
                recipe.shapes().stream().anyMatch(each -> !each.tie().follow().isEmpty());
        return tied ? focused.withShapes(carried(seconds)) : focused;
    }

    private List<BlurShape> carried(double seconds) {
        return recipe.shapes().stream()
                .map(each -> each.at(seconds, way(each)))
                .filter(BlurShape::acts)
                .toList();
    }

    private @Nullable Way way(BlurShape shape) {
        return recipe.follows().stream()
                .filter(each -> each.id().equals(shape.tie().follow()))
                .findFirst()
                .map(ways)
                .orElse(null);
    }

    private static SharpBand around(double depth, double width, SharpBand like) {
        SharpBand level = SharpBand.around(depth, width, 0);
        return new SharpBand(
                level.near(), level.far(), like.nearFalloff(), like.farFalloff(), like.tiltAcross(), like.tiltDown());
    }

    /** How far marks leave the band to what is followed, in [0,1]. */
    static double free(List<BandMark> marks, double seconds) {
        if (marks.isEmpty()) {
            return 1;
        }
        double free = 1;
        for (int i = 0; i < marks.size(); i++) {
            BandMark mark = marks.get(i);
            boolean freeBefore = i == 0 || marks.get(i - 1).follow();
            boolean freeAfter = i == marks.size() - 1 || mark.follow();
            double away = seconds - mark.at();
            double own = away == 0
                    ? 0
                    : (away < 0 ? freeBefore : freeAfter) ? Ease.SMOOTH.share(Math.abs(away) / HAND_OVER) : 0;
            // Only the marks to either side have a say.
            boolean beside = away <= 0
                    ? i == 0 || marks.get(i - 1).at() <= seconds
                    : i == marks.size() - 1 || marks.get(i + 1).at() > seconds;
            if (beside) {
                free = Math.min(free, own);
            }
        }
        return free;
    }
}
