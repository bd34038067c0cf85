package app.yubble.bench;

import app.yubble.core.depth.Kin;
import app.yubble.core.ladder.Footing;
import app.yubble.core.ladder.Ladder;
import app.yubble.core.ladder.Rung;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Resample;
import app.yubble.core.raster.Size;
import java.util.Collections;
import java.util.List;
import java.util.Locale;
import org.jspecify.annotations.Nullable;

/**
 * What three rungs bring where a map fails. They are set as somebody would who sees what is wrong: on the three points, of
 * three ranks, that are in most pairs of the wrong order. Pairs of two rungs, which the ladder puts right in any case, do not count.
 */
final class LadderJudge {
    /** Share of pairs under which a map fails. */
    private static final double FAILS = 0.9;
    /** More than lies between two ranks: how wrong places are comes before how far apart they stand. */
    private static final int WORST = 100;

    private int photos;
    private int pairs;
    private int before;
    private int after;
    private int broken;
    private double millis;

    void judge(RankedPhoto photo, Picture picture, Plane map, @Nullable Kin kin) {
        List<RankedPhoto.Pair> all = photo.pairs();
        PairsCard.Ordered found = PairsCard.Ordered.of(map);
        if (all.stream().filter(found::has).count() >= FAILS * all.size()) {
            return;
        }
        List<RankedPhoto.Point> rungs = worst(photo, found);
        if (rungs == null) {
            return;
        }
        Size size = picture.size().fitting(Footing.SIDE);
        Footing footing = new Footing(Resample.toSize(map, size), Resample.toSize(picture, size), kin);
        long start = System.nanoTime();
        Ladder ladder = new Ladder(
                rungs.stream().map(point -> Rung.at(point.x(), point.y())).toList(),
                Collections.nCopies(rungs.size(), footing));
        Plane moved = ladder.move(map, picture, footing);
        millis += (System.nanoTime() - start) / 1e6 / (picture.size().pixels() / 1e6);
        photos++;
        PairsCard.Ordered then = PairsCard.Ordered.of(moved);
        for (RankedPhoto.Pair pair : all) {
            if (!rungs.contains(pair.near()) || !rungs.contains(pair.far())) {
                boolean was = found.has(pair);
                boolean is = then.has(pair);
                pairs++;
                before += was ? 1 : 0;
                after += is ? 1 : 0;
                broken += was && !is ? 1 : 0;
            }
        }
    }

    /** From near to far; null when there are fewer than three ranks. */
    private static @Nullable List<RankedPhoto.Point> worst(RankedPhoto photo, PairsCard.Ordered map) {
        List<RankedPhoto.Point> best = null;
        long most = -1;
        for (RankedPhoto.Point near : photo.points()) {
            for (RankedPhoto.Point middle : photo.points()) {
                for (RankedPhoto.Point far : photo.points()) {
                    if (near.rank() < middle.rank() && middle.rank() < far.rank()) {
                        long wrong = wrong(photo, near, map) + wrong(photo, middle, map) + wrong(photo, far, map);
                        long score = WORST * wrong + far.rank() - near.rank();
                        if (score > most) {
                            most = score;
                            best = List.of(near, middle, far);
                        }
                    }
                }
            }
        }
        return best;
    }

    private static long wrong(RankedPhoto photo, RankedPhoto.Point point, PairsCard.Ordered map) {
        return photo.pairs().stream()
                .filter(pair -> pair.near().equals(point) || pair.far().equals(point))
                .filter(pair -> !map.has(pair))
                .count();
    }

    void print() {
        if (photos > 0) {
            System.out.printf(
                    Locale.ROOT,
                    "%nladder of three rungs on %d photos under %.0f %%: %d pairs, right %.1f -> %.1f %%, broken %.1f %% of those that were right; %.0f ms a megapixel%n",
                    photos,
                    100 * FAILS,
                    pairs,
                    100.0 * before / pairs,
                    100.0 * after / pairs,
                    100.0 * broken / Math.max(1, before),
                    millis / photos);
        }
    }
}
