package app.yubble.core.inspect;

import app.yubble.core.raster.Flood;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Size;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * Thin parts of which a piece has lost its depth: in the picture a bar goes on, and in depth it stands out from what is on both
 * sides for one part of its length and not for another.
 */
final class Bars {
    // Pixels to either side at which a bar has ended.
    private static final int[] REACHES = {4, 8, 14};
    /** Across a bar, for the four directions a bar can have. */
    private static final int[] NORMAL_X = {1, 0, 1, 1};
    /** See {@link #NORMAL_X}. */
    private static final int[] NORMAL_Y = {0, 1, 1, -1};
    /**
     * Colour distance from both sides that makes a bar. This and what follows by the made faults of EdgeInspectorTest
     * and by eye on the masts and fences of the demo photos.
     */
    private static final float CONTRAST = 0.1f;
    /** Colour distance along a bar between one pixel and the next. */
    private static final float ALIKE = 0.09f;
    /** The same between any pixel and where the bar begins. */
    private static final float SAME = 0.16f;
    /** Of a bar at the inspector's size. */
    private static final int LEAST_PIXELS = 50;
    /** Shorter things are no bars. */
    private static final double LENGTH_TO_WIDTH = 1.8;
    /** Pixels; thinner ones are the edge of something. */
    private static final double THINNEST = 2.5;
    /** Pixels; thicker ones have borders of their own that are looked at. */
    private static final double THICKEST = 18;
    // Less of its box is filled by what is bent or torn.
    private static final double FILLED = 0.6;
    /** How many pixels at its ends, over its thickness, touch what has the other depth. */
    private static final double CONTACT = 11;

    private static final byte NO_BAR = 0;
    private static final byte STANDS_OUT = 1;
    private static final byte FLAT = 2;

    private final float[][] colours;
    private final float[] depth;
    private final int width;
    private final int height;
    private final float step;

    private Bars(float[][] colours, Plane nearness, float step) {
        this.colours = colours;
        this.step = step;
        depth = nearness.samples();
        width = nearness.width();
        height = nearness.height();
    }

    /** @param step of nearness that counts as standing out */
    static List<Suspect> suspects(float[][] colours, Plane nearness, float step) {
        Bars bars = new Bars(colours, nearness, step);
        List<Suspect> out = new ArrayList<>();
        for (int direction = 0; direction < NORMAL_X.length; direction++) {
            bars.along(direction, out);
        }
        return out;
    }

    private void along(int direction, List<Suspect> out) {
        byte[] states = new byte[depth.length];
        for (int y = 0; y < height; y++) {
            for (int x = 0; x < width; x++) {
                states[y * width + x] = state(x, y, direction);
            }
        }
        Flood flood = new Flood(new Size(width, height));
        for (int i = 0; i < states.length; i++) {
            if (states[i] == FLAT && !flood.isTaken(i)) {
                int start = i;
                int[] piece = flood.from(
                        i,
                        true,
                        (from, to) -> states[to] == FLAT
                                && Segments.distance(colours, from, to) < ALIKE
                                && Segments.distance(colours, start, to) < SAME);
                Suspect suspect = suspect(piece, states);
                if (suspect != null) {
                    out.add(suspect);
                }
            }
        }
    }

    private byte state(int x, int y, int direction) {
        int i = y * width + x;
        for (int reach : REACHES) {
            int steps = direction < 2 ? reach : (int) Math.round(reach / Math.sqrt(2));
            int dx = NORMAL_X[direction] * steps;
            int dy = NORMAL_Y[direction] * steps;
            if (x - dx < 0 || x + dx < 0 || y - dy < 0 || y + dy < 0) {
                continue;
            }
            if (x - dx >= width || x + dx >= width || y - dy >= height || y + dy >= height) {
                continue;
            }
            int one = (y - dy) * width + x - dx;
            int other = (y + dy) * width + x + dx;
            if (Segments.distance(colours, i, one) > CONTRAST && Segments.distance(colours, i, other) > CONTRAST) {
                float sides = Math.max(depth[one], depth[other]);
                if (depth[i] > sides + step) {
                    return STANDS_OUT;
                }
                // What lies behind both sides is a gap, not a bar.
                float farther = Math.min(depth[one], depth[other]);
                return depth[i] < sides + step / 3 && depth[i] > farther - step ? FLAT : NO_BAR;
            }
        }
        return NO_BAR;
    }

    /** A straight flat piece of a bar is suspect when the same bar goes on from its ends and stands out there. */
    private @Nullable Suspect suspect(int[] piece, byte[] states) {
        if (piece.length < LEAST_PIXELS) {
            return null;
        }
        Straight line = Straight.through(piece, width);
        if (line.thickness() < THINNEST
                || line.thickness() > THICKEST
                || line.length() < LENGTH_TO_WIDTH * line.thickness()
                || piece.length < FILLED * line.length() * line.thickness()) {
            return null;
        }
        double own = 0;
        int atEnds = 0;
        int beside = 0;
        double target = 0;
        for (int i : piece) {
            own += depth[i] / piece.length;
            int x = i % width;
            boolean end = Math.abs(line.along(x, i / width)) > line.length() / 2 - 1.5 * line.thickness();
            for (int dy = -2; dy <= 2; dy++) {
                for (int dx = -2; dx <= 2; dx++) {
                    int to = i + dy * width + dx;
                    if (x + dx >= 0
                            && x + dx < width
                            && to >= 0
                            && to < depth.length
                            && states[to] == STANDS_OUT
                            && Segments.distance(colours, i, to) < ALIKE) {
                        atEnds += end ? 1 : 0;
                        beside += end ? 0 : 1;
                        target += depth[to];
                    }
                }
            }
        }
        target /= Math.max(1, atEnds + beside);
        if (atEnds < CONTACT * line.thickness() || beside > atEnds / 8 || target < own + step) {
            return null;
        }
        Arrays.sort(piece);
        return new Suspect(piece, own, target, line.length(), line.length(), 0, 2 * line.length(), 0);
    }

    /** The straight bar that a piece would be: its middle, its direction, and how long and thick it is. */
    private record Straight(double x, double y, double dx, double dy, double length, double thickness) {
        static Straight through(int[] piece, int width) {
            double x = 0;
            double y = 0;
            for (int i : piece) {
                x += (double) (i % width) / piece.length;
                y += (double) (i / width) / piece.length;
            }
            double xx = 0;
            double xy = 0;
            double yy = 0;
            for (int i : piece) {
                double dx = i % width - x;
                double dy = i / width - y;
                xx += dx * dx / piece.length;
                xy += dx * dy / piece.length;
                yy += dy * dy / piece.length;
            }
            double half = (xx + yy) / 2;
            double root = Math.sqrt((xx - yy) * (xx - yy) / 4 + xy * xy);
            double angle = Math.atan2(2 * xy, xx - yy) / 2;
            // The spread of a line of length L is L squared over twelve.
            return new Straight(
                    x,
                    y,
                    Math.cos(angle),
                    Math.sin(angle),
                    Math.sqrt(12 * (half + root)),
                    Math.sqrt(12 * Math.max(0, half - root)) + 1);
        }

        double along(int px, int py) {
            return (px - x) * dx + (py - y) * dy;
        }
    }
}
