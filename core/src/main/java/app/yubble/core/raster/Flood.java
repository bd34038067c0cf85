package app.yubble.core.raster;

import java.util.Arrays;

/** Gathers connected places of a grid, one piece after the other; each place belongs to one piece. */
public final class Flood {
    private final int width;
    private final boolean[] seen;
    private final int[] queue;

    /** Whether a piece goes on from a place to its neighbour. */
    @FunctionalInterface
    public interface Joining {
        boolean joins(int from, int to);
    }

    public Flood(Size size) {
        width = size.width();
        seen = new boolean[size.width() * size.height()];
        queue = new int[seen.length];
    }

    public boolean isTaken(int place) {
        return seen[place];
    }

    /**
     * The piece that a place belongs to, from that place outwards.
     *
     * @param corners whether places that touch by a corner are neighbours
     */
    public int[] from(int start, boolean corners, Joining joining) {
        int head = 0;
        int tail = 0;
        seen[start] = true;
        queue[tail++] = start;
        while (head < tail) {
            int at = queue[head++];
            int x = at % width;
            for (int dy = -1; dy <= 1; dy++) {
                for (int dx = -1; dx <= 1; dx++) {
                    int to = at + dy * width + dx;
                    boolean inside = x + dx >= 0 && x + dx < width && to >= 0 && to < seen.length;
                    if (inside && !seen[to] && (corners || dx == 0 || dy == 0) && joining.joins(at, to)) {
                        seen[to] = true;
                        queue[tail++] = to;
                    }
                }
            }
        }
        return Arrays.copyOf(queue, tail);
    }
}
