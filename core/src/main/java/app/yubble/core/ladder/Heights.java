package app.yubble.core.ladder;

import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * The nearness that rungs move to: in their order, with room between them, and as near as that allows to what the map says (isotonic
 * regression by pooling neighbours that contradict each other; Barlow et al., "Statistical Inference under Order Restrictions", 1972).
 *
 * @param nearness of each rung
 * @param scale what nearness is in metres; null while fewer than two distances are known
 */
public record Heights(double[] nearness, @Nullable Scale scale) {
    /** Of nearness, between two rungs: about what shows as another blur. */
    private static final double ROOM = 0.08;
    /** Share of the whole range that all rooms together take at most. */
    private static final double MOST_ROOM = 0.8;
    /** Of a rung whose distance is known, against one whose is not. */
    private static final double KNOWN = 1e4;

    /**
     * The straight line from nearness to inverse distance.
     *
     * @param atZero inverse metres at nearness 0, below 0 when what lies there is not to be had in metres
     * @param perNearness inverse metres a unit of nearness
     */
    public record Scale(double atZero, double perNearness) {
        /** Infinite for what is farther than can be told. */
        public double metres(double nearness) {
            double inverse = atZero + perNearness * nearness;
            return inverse > 0 ? 1 / inverse : Double.POSITIVE_INFINITY;
        }
    }

    /** Rungs that stand equally far. */
    private record Level(double found, double weight, double metres) {}

    /** @param found nearness of the map under each rung, of which there is at least one */
    public static Heights of(List<Rung> rungs, double[] found) {
        List<Level> levels = levels(rungs, found);
        double room = Math.min(ROOM, MOST_ROOM / levels.size());
        double[] heights = within(ordered(levels, room), room);
        List<Integer> told = new ArrayList<>();
        for (int i = 0; i < levels.size(); i++) {
            if (levels.get(i).metres > 0) {
                told.add(i);
            }
        }
        Scale scale = null;
        if (told.size() > 1) {
            scale = scale(levels, heights, told);
            if (told.size() > 2) {
                heights = within(ordered(placed(levels, heights, scale), 0), 0);
            }
        }
        double[] out = new double[rungs.size()];
        for (int i = 0, level = -1; i < out.length; i++) {
            level += rungs.get(i).tied() ? 0 : 1;
            out[i] = heights[level];
        }
        return new Heights(out, scale);
    }

    private static List<Level> levels(List<Rung> rungs, double[] found) {
        List<Level> out = new ArrayList<>();
        for (int i = 0; i < rungs.size(); i++) {
            if (rungs.get(i).tied()) {
                Level above = out.remove(out.size() - 1);
                double weight = above.weight + 1;
                out.add(new Level(above.found + (found[i] - above.found) / weight, weight, above.metres));
            } else {
                out.add(new Level(found[i], 1, rungs.get(i).metres()));
            }
        }
        return out;
    }

    /** Falling from level to level, each at least {@code room} under the one before. */
    private static double[] ordered(List<Level> levels, double room) {
        int count = levels.size();
        double[] means = new double[count];
        double[] weights = new double[count];
        int[] sizes = new int[count];
        int pools = 0;
        for (int i = 0; i < count; i++) {
            means[pools] = levels.get(i).found + i * room;
            weights[pools] = levels.get(i).weight;
            sizes[pools] = 1;
            for (; pools > 0 && means[pools - 1] < means[pools]; pools--) {
                double weight = weights[pools - 1] + weights[pools];
                means[pools - 1] += (means[pools] - means[pools - 1]) * weights[pools] / weight;
                weights[pools - 1] = weight;
                sizes[pools - 1] += sizes[pools];
            }
            pools++;
        }
        double[] out = new double[count];
        for (int pool = 0, i = 0; pool < pools; pool++) {
            for (int end = i + sizes[pool]; i < end; i++) {
                out[i] = means[pool] - i * room;
            }
        }
        return out;
    }

    private static double[] within(double[] heights, double room) {
        int last = heights.length - 1;
        for (int i = 0; i <= last; i++) {
            heights[i] = Math.max((last - i) * room, Math.min(1 - i * room, heights[i]));
        }
        return heights;
    }

    /** Least squares of nearness over inverse distance, which is the straight way: nearness is what is uncertain. */
    private static Scale scale(List<Level> levels, double[] heights, List<Integer> told) {
        double inverse = 0;
        double height = 0;
        for (int i : told) {
            inverse += 1 / levels.get(i).metres / told.size();
            height += heights[i] / told.size();
        }
        double both = 0;
        double spread = 0;
        for (int i : told) {
            double away = 1 / levels.get(i).metres - inverse;
            both += away * (heights[i] - height);
            spread += away * away;
        }
        double perNearness = spread / both;
        return new Scale(inverse - perNearness * height, perNearness);
    }

    /** Levels whose distance is known lie on the scale, whatever the others say. */
    private static List<Level> placed(List<Level> levels, double[] heights, Scale scale) {
        List<Level> out = new ArrayList<>();
        for (int i = 0; i < heights.length; i++) {
            Level level = levels.get(i);
            out.add(
                    level.metres > 0
                            ? new Level((1 / level.metres - scale.atZero) / scale.perNearness, KNOWN, level.metres)
                            : new Level(heights[i], level.weight, 0));
        }
        return out;
    }
}
