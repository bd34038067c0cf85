package app.yubble.core.clip;

import java.util.List;
import java.util.function.Function;

/** What something is at a moment of a clip, and how it goes on from there. */
public interface Mark {
    /** Seconds; ten hours, so that a fault of writing is found. */
    double LATEST = 36_000;

    /** Seconds from the clip's first frame. */
    double at();

    /** How values go on to the next mark. */
    Ease ease();

    /** A value between two others. */
    @FunctionalInterface
    interface Between<T> {
        /** @param share of the way from {@code a} to {@code b} */
        T value(T a, T b, double share);
    }

    /**
     * The value at a time. Before the first mark it is the first one's, after the last the last one's.
     *
     * @param marks in order, at least one
     */
    static <M extends Mark, T> T valueAt(List<M> marks, double seconds, Function<M, T> value, Between<T> between) {
        int next = 0;
        while (next < marks.size() && marks.get(next).at() <= seconds) {
            next++;
        }
        if (next == 0 || next == marks.size()) {
            return value.apply(marks.get(Math.max(0, next - 1)));
        }
        M from = marks.get(next - 1);
        M to = marks.get(next);
        double share = from.ease().share((seconds - from.at()) / (to.at() - from.at()));
        return between.value(value.apply(from), value.apply(to), share);
    }

    /** @throws IllegalArgumentException when they do not follow each other */
    static void requireOrder(List<? extends Mark> marks, String of) {
        for (int i = 1; i < marks.size(); i++) {
            if (marks.get(i).at() <= marks.get(i - 1).at()) {
                throw new IllegalArgumentException("marks of " + of + " must follow each other, found one at "
                        + marks.get(i).at() + " s after one at "
                        + marks.get(i - 1).at() + " s");
            }
        }
    }

    /** A number between two. */
    static double mixed(double a, double b, double share) {
        return a + (b - a) * share;
    }
}
