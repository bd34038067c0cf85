package app.yubble.core.inspect;

import app.yubble.core.raster.Plane;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/** Judges the pieces of one way to part the picture. */
final class Suspicion {
    /**
     * Of the picture: a larger piece that were wrong would be seen without help. This and what follows by the made
     * faults of EdgeInspectorTest, with at most two false ones on exact maps.
     */
    private static final double LARGEST_SHARE = 0.06;
    /** Nearness; smaller steps are noise of any map. */
    private static final double LEAST_STEP = 0.012;
    /** The same over the range of the map. */
    private static final double STEP_SHARE = 0.04;
    /** Step, over the range, from which a border counts fully. */
    private static final double FULL_STEP_SHARE = 0.2;
    /** Pixels of border that would no longer be unseen. */
    private static final double LEAST_GAIN = 8;
    /** Share of the unseen border that may remain. */
    private static final double LEFT_OVER = 0.35;
    /** Share of a neighbour's border that is not seen, from which its depth is tried. */
    private static final double LEAST_UNSEEN = 0.12;
    /** Of all of a piece's steps, those without an edge in the picture. */
    private static final double UNSEEN_SHARE = 0.5;
    /** Steps between two depths that mean the same. */
    private static final double ALIKE = 0.3;
    /** Difference of two gains, over the smaller, that decides nothing. */
    private static final double EQUAL = 0.15;
    /** Steps that a piece would move by, at least. */
    private static final double LEAST_CHANGE = 0.2;

    private final Fragments fragments;
    private final long pixels;
    private final double fullStep;
    private final List<List<Side>> sides = new ArrayList<>();

    /** A border as one of its fragments sees it. */
    private record Side(int other, int length, double unseen, double own, double across) {}

    /** The depth that a fragment should have, of which neighbour, and what that mends. */
    private record Better(int fragment, int like, double target, double gain) {}

    /** @param segments areas that are parted by depth */
    Suspicion(int[] segments, float[][] colours, Plane nearness) {
        pixels = nearness.size().pixels();
        Plane.Range range = nearness.range();
        fullStep = Math.max(2 * LEAST_STEP, FULL_STEP_SHARE * range.span());
        fragments = Fragments.of(segments, colours, nearness, step(nearness));
        for (int i = 0; i < fragments.count(); i++) {
            sides.add(new ArrayList<>());
        }
        fragments.borders().forEach((pair, border) -> {
            double first = border.firstDepth / border.length;
            double second = border.secondDepth / border.length;
            double unseen = border.unseen();
            sides.get(Fragments.first(pair))
                    .add(new Side(Fragments.second(pair), border.length, unseen, first, second));
            sides.get(Fragments.second(pair))
                    .add(new Side(Fragments.first(pair), border.length, unseen, second, first));
        });
    }

    /** The smallest difference of nearness that counts. */
    static float step(Plane nearness) {
        return (float) Math.max(LEAST_STEP, STEP_SHARE * nearness.range().span());
    }

    List<Suspect> suspects() {
        Map<Integer, Better> found = new HashMap<>();
        for (int i = 0; i < fragments.count(); i++) {
            Better better = better(i);
            if (better != null) {
                found.put(i, better);
            }
        }
        List<Better> wrongWayRound = found.values().stream()
                .filter(each -> isWorse(each, found.get(each.like())))
                .toList();
        wrongWayRound.forEach(each -> found.remove(each.fragment()));
        List<List<Better>> groups = grouped(found);
        Map<Integer, Integer> groupOf = new HashMap<>();
        for (int g = 0; g < groups.size(); g++) {
            for (Better each : groups.get(g)) {
                groupOf.put(each.fragment(), g);
            }
        }
        int[][] places = places(groupOf, groups.size());
        List<Suspect> out = new ArrayList<>();
        for (int g = 0; g < groups.size(); g++) {
            Suspect suspect = suspect(groups.get(g), groupOf, g, places[g]);
            if (suspect.gain() >= LEAST_GAIN
                    && suspect.left() < LEFT_OVER * suspect.unseen()
                    && suspect.unseen() > UNSEEN_SHARE * suspect.stepped()) {
                out.add(suspect);
            }
        }
        return out;
    }

    /** Of two that would each take the other's depth the one that mends more is wrong; of equals the one that is too far. */
    private static boolean isWorse(Better each, @Nullable Better other) {
        if (other == null || other.like() != each.fragment()) {
            return false;
        }
        double less = other.gain() - each.gain();
        return Math.abs(less) > EQUAL * other.gain() ? less > 0 : each.target() < other.target();
    }

    private double step(double a, double b) {
        return Math.min(1, Math.abs(a - b) / fullStep);
    }

    private @Nullable Better better(int fragment) {
        if (fragments.size(fragment) > LARGEST_SHARE * pixels) {
            return null;
        }
        double now = 0;
        for (Side side : sides.get(fragment)) {
            now += side.length() * side.unseen() * step(side.own(), side.across());
        }
        if (now < LEAST_GAIN) {
            return null;
        }
        Better best = null;
        for (Side like : sides.get(fragment)) {
            if (like.unseen() < LEAST_UNSEEN || step(like.own(), like.across()) < LEAST_CHANGE) {
                continue;
            }
            double then = 0;
            for (Side side : sides.get(fragment)) {
                then += side.length() * side.unseen() * step(like.across(), side.across());
            }
            double gain = now - then;
            if (gain > 0 && (best == null || gain > best.gain())) {
                best = new Better(fragment, like.other(), like.across(), gain);
            }
        }
        return best;
    }

    /** Neighbours that should take about the same depth are one suspect. */
    private List<List<Better>> grouped(Map<Integer, Better> found) {
        List<List<Better>> out = new ArrayList<>();
        Map<Integer, Boolean> seen = new HashMap<>();
        for (Better start : found.values()) {
            if (seen.putIfAbsent(start.fragment(), true) != null) {
                continue;
            }
            List<Better> group = new ArrayList<>(List.of(start));
            for (int i = 0; i < group.size(); i++) {
                Better each = group.get(i);
                for (Side side : sides.get(each.fragment())) {
                    Better other = found.get(side.other());
                    if (other != null
                            && step(other.target(), each.target()) < ALIKE
                            && seen.putIfAbsent(other.fragment(), true) == null) {
                        group.add(other);
                    }
                }
            }
            out.add(group);
        }
        return out;
    }

    private int[][] places(Map<Integer, Integer> groupOf, int groups) {
        int[][] out = new int[groups][16];
        int[] counts = new int[groups];
        int[] labels = fragments.labels();
        for (int i = 0; i < labels.length; i++) {
            Integer group = groupOf.get(labels[i]);
            if (group != null) {
                if (counts[group] == out[group].length) {
                    out[group] = Arrays.copyOf(out[group], 2 * counts[group]);
                }
                out[group][counts[group]++] = i;
            }
        }
        for (int g = 0; g < groups; g++) {
            out[g] = Arrays.copyOf(out[g], counts[g]);
        }
        return out;
    }

    /** What a group's outer border says. */
    private Suspect suspect(List<Better> group, Map<Integer, Integer> groupOf, int number, int[] places) {
        double weight = 0;
        double target = 0;
        for (Better each : group) {
            weight += each.gain();
            target += each.gain() * each.target();
        }
        target /= weight;
        double unseen = 0;
        double stepped = 0;
        double left = 0;
        double around = 0;
        double own = 0;
        double nearer = 0;
        for (Better each : group) {
            for (Side side : sides.get(each.fragment())) {
                Integer other = groupOf.get(side.other());
                if (other != null && other == number) {
                    continue;
                }
                double change = step(side.own(), side.across());
                unseen += side.length() * side.unseen() * change;
                stepped += side.length() * change;
                left += side.length() * side.unseen() * step(target, side.across());
                around += side.length();
                own += side.length() * side.own();
                nearer += side.length() * (side.own() > side.across() ? change : -change);
            }
        }
        return new Suspect(
                places, own / Math.max(1, around), target, unseen, stepped, left, around, nearer / Math.max(1, around));
    }
}
