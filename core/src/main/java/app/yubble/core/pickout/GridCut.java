package app.yubble.core.pickout;

import java.util.Arrays;

/**
 * Parts the cells of a grid into two sides at the least cost: a minimum cut.
 *
 * <p>Boykov and Kolmogorov, "An Experimental Comparison of Min-Cut/Max-Flow Algorithms for Energy Minimization in Vision"
 * (PAMI 2004): a tree grows from each side, where they meet the path between them is filled, and what a full edge cuts off
 * finds a new parent. Departures: cells have eight neighbours known by their place, and a rim of cells without edges
 * stands for the tests at the border.
 */
final class GridCut {
    /** Directions, clockwise by rows; a direction and its opposite add up to seven. */
    static final int[] DX = {-1, 0, 1, -1, 1, -1, 0, 1};

    /** The eight neighbours, as {@link #DX}. */
    static final int[] DY = {-1, -1, -1, 0, 0, 1, 1, 1};
    /** As many. */
    private static final int DIRECTIONS = 8;

    private static final byte TERMINAL = 8;
    private static final byte NONE = 9;
    private static final byte ORPHAN = 10;
    private static final byte FREE = 0;
    private static final byte INNER = 1;
    private static final byte OUTER = 2;

    private final int width;
    private final int stride;
    private final int[] offsets = new int[DIRECTIONS];
    private final float[][] left = new float[DIRECTIONS][];
    /** What is left of the link to a side: to the inner one when positive. */
    private final float[] terminals;

    private final byte[] trees;
    private final byte[] parents;
    private final int[] stamps;
    private final int[] distances;
    private final int[] nexts;
    private int firstActive = -1;
    private int lastActive = -1;
    private int[] orphans = new int[1024];
    private int orphanCount;
    private int time;

    GridCut(int width, int height) {
        this.width = width;
        stride = width + 2;
        int cells = stride * (height + 2);
        for (int d = 0; d < DIRECTIONS; d++) {
            offsets[d] = DY[d] * stride + DX[d];
            left[d] = new float[cells];
        }
        terminals = new float[cells];
        trees = new byte[cells];
        parents = new byte[cells];
        stamps = new int[cells];
        distances = new int[cells];
        nexts = new int[cells];
    }

    private int cell(int place) {
        return (place / width + 1) * stride + place % width + 1;
    }

    /** How much more it costs to put a cell, by its place row by row, on the outer side than on the inner one. */
    void lean(int place, float value) {
        terminals[cell(place)] = value;
    }

    /** What it costs to part a cell from its neighbour in a direction, which must exist. */
    void link(int place, int direction, float cost) {
        int cell = cell(place);
        left[direction][cell] = cost;
        left[DIRECTIONS - 1 - direction][cell + offsets[direction]] = cost;
    }

    /** For every place whether it is on the inner side. To be called once. */
    boolean[] cut() {
        Arrays.fill(nexts, -2);
        Arrays.fill(parents, NONE);
        for (int i = 0; i < terminals.length; i++) {
            if (terminals[i] != 0) {
                trees[i] = terminals[i] > 0 ? INNER : OUTER;
                parents[i] = TERMINAL;
                distances[i] = 1;
                activate(i);
            }
        }
        for (int cell = nextActive(); cell >= 0; cell = nextActive()) {
            grow(cell);
        }
        boolean[] out = new boolean[width * (terminals.length / stride - 2)];
        for (int i = 0; i < out.length; i++) {
            out[i] = trees[cell(i)] == INNER;
        }
        return out;
    }

    private void activate(int cell) {
        if (nexts[cell] != -2) {
            return;
        }
        nexts[cell] = -1;
        if (lastActive >= 0) {
            nexts[lastActive] = cell;
        } else {
            firstActive = cell;
        }
        lastActive = cell;
    }

    private int nextActive() {
        while (firstActive >= 0) {
            int cell = firstActive;
            firstActive = nexts[cell];
            if (firstActive < 0) {
                lastActive = -1;
            }
            nexts[cell] = -2;
            if (trees[cell] != FREE) {
                return cell;
            }
        }
        return -1;
    }

    /** What can still flow from the root of a tree over an edge of it: away from the inner side, towards the outer one. */
    private float room(byte tree, int cell, int direction) {
        return tree == INNER ? left[direction][cell] : left[DIRECTIONS - 1 - direction][cell + offsets[direction]];
    }

    private void grow(int cell) {
        byte tree = trees[cell];
        for (int d = 0; d < DIRECTIONS; d++) {
            if (room(tree, cell, d) <= 0) {
                continue;
            }
            int other = cell + offsets[d];
            if (trees[other] == FREE) {
                adopt(other, tree, d, cell);
                activate(other);
            } else if (trees[other] == tree) {
                if (stamps[other] <= stamps[cell] && distances[other] > distances[cell]) {
                    adopt(other, tree, d, cell);
                }
            } else {
                fill(tree == INNER ? cell : other, tree == INNER ? d : DIRECTIONS - 1 - d);
                rehome();
                if (trees[cell] != tree) {
                    return;
                }
                // The same edge may have room left, and its neighbour another tree.
                d--;
            }
        }
    }

    private void adopt(int child, byte tree, int directionFromParent, int parent) {
        trees[child] = tree;
        parents[child] = (byte) (DIRECTIONS - 1 - directionFromParent);
        stamps[child] = stamps[parent];
        distances[child] = distances[parent] + 1;
    }

    /** Fills the path over the edge from a cell of the inner tree to one of the outer tree. */
    private void fill(int inner, int direction) {
        int outer = inner + offsets[direction];
        float least = left[direction][inner];
        int cell = inner;
        for (; parents[cell] != TERMINAL; cell += offsets[parents[cell]]) {
            least = Math.min(least, left[DIRECTIONS - 1 - parents[cell]][cell + offsets[parents[cell]]]);
        }
        least = Math.min(least, terminals[cell]);
        for (cell = outer; parents[cell] != TERMINAL; cell += offsets[parents[cell]]) {
            least = Math.min(least, left[parents[cell]][cell]);
        }
        least = Math.min(least, -terminals[cell]);

        push(inner, direction, least);
        for (cell = inner; parents[cell] != TERMINAL; ) {
            int up = parents[cell];
            int parent = cell + offsets[up];
            push(parent, DIRECTIONS - 1 - up, least);
            if (left[DIRECTIONS - 1 - up][parent] <= 0) {
                orphan(cell);
            }
            cell = parent;
        }
        terminals[cell] -= least;
        if (terminals[cell] <= 0) {
            orphan(cell);
        }
        for (cell = outer; parents[cell] != TERMINAL; ) {
            int up = parents[cell];
            int parent = cell + offsets[up];
            push(cell, up, least);
            if (left[up][cell] <= 0) {
                orphan(cell);
            }
            cell = parent;
        }
        terminals[cell] += least;
        if (terminals[cell] >= 0) {
            orphan(cell);
        }
    }

    private void push(int cell, int direction, float flow) {
        left[direction][cell] -= flow;
        left[DIRECTIONS - 1 - direction][cell + offsets[direction]] += flow;
    }

    private void orphan(int cell) {
        parents[cell] = ORPHAN;
        if (orphanCount == orphans.length) {
            orphans = Arrays.copyOf(orphans, 2 * orphanCount);
        }
        orphans[orphanCount++] = cell;
    }

    private void rehome() {
        time++;
        while (orphanCount > 0) {
            int cell = orphans[--orphanCount];
            byte tree = trees[cell];
            int best = -1;
            int least = Integer.MAX_VALUE;
            for (int d = 0; d < DIRECTIONS; d++) {
                int other = cell + offsets[d];
                // An edge of a tree leads from the parent to the child.
                if (trees[other] == tree && room(tree, other, DIRECTIONS - 1 - d) > 0) {
                    int distance = toRoot(other);
                    if (distance < least) {
                        least = distance;
                        best = d;
                    }
                }
            }
            if (best >= 0) {
                parents[cell] = (byte) best;
                stamps[cell] = time;
                distances[cell] = least + 1;
                continue;
            }
            for (int d = 0; d < DIRECTIONS; d++) {
                int other = cell + offsets[d];
                if (trees[other] != tree) {
                    continue;
                }
                if (room(tree, other, DIRECTIONS - 1 - d) > 0) {
                    activate(other);
                }
                if (parents[other] == DIRECTIONS - 1 - d) {
                    orphan(other);
                }
            }
            trees[cell] = FREE;
            parents[cell] = NONE;
        }
    }

    /** Steps to the root; the largest number when the way ends at an orphan. Marks what it has passed. */
    private int toRoot(int start) {
        int steps = 0;
        int cell = start;
        while (true) {
            if (stamps[cell] == time) {
                steps += distances[cell];
                break;
            }
            if (parents[cell] == TERMINAL) {
                stamps[cell] = time;
                distances[cell] = 1;
                steps++;
                break;
            }
            if (parents[cell] >= TERMINAL) {
                return Integer.MAX_VALUE;
            }
            steps++;
            cell += offsets[parents[cell]];
        }
        int distance = steps;
        for (cell = start; stamps[cell] != time; cell += offsets[parents[cell]]) {
            stamps[cell] = time;
            distances[cell] = distance--;
        }
        return steps;
    }
}
