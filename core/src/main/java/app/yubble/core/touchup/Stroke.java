package app.yubble.core.touchup;

import app.yubble.core.setting.Declared;
import app.yubble.core.setting.Setting;
import app.yubble.core.setting.Unit;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.Arrays;
import java.util.HexFormat;

/**
 * One stroke of a brush: how it paints and where it went.
 *
 * <p>Points are triples of x, y and pressure: x in shares of the picture's width and y of its height, which may lie outside;
 * pressure in [0,1]. A stroke with one point is a dab.
 */
public final class Stroke {
    /** Values for each point. */
    public static final int VALUES = 3;

    /** More points than this do not get finer; a pen gives some hundred a second. */
    public static final int MOST_POINTS = 20_000;

    /** More than this are not even looked at: an hour of a pen. */
    public static final int MOST_RAW_POINTS = 1_000_000;

    /** A curve of a million points is divided about 25 times. */
    private static final int MOST_DIVISIONS = 40;
    // So far outside nothing that matters can be meant.
    private static final float FARTHEST = 4;

    /** What the pressure of a pen changes. */
    public enum Pressure {
        NOTHING,
        SIZE,
        BUILD_UP
    }

    /** What paint stops at. */
    public enum Edges {
        PHOTO,
        DEPTH,
        BOTH
    }

    /** How a stroke paints. */
    public record Brush(
            @Setting(means = "takes paint away") boolean erases,

            @Setting(
                    called = "Size",
                    means = "diameter of the brush",
                    least = 0.0001,
                    most = 2,
                    usual = 0.05,
                    unit = Unit.SIDE)
            double size,

            @Setting(
                    called = "Softness",
                    means = "share of the radius over which paint fades towards the rim",
                    unit = Unit.SHARE)
            double softness,

            @Setting(
                    called = "Build-up",
                    means = "how much of what is missing to full one dab adds; all of it paints fully at once",
                    least = 0.01,
                    usual = 1,
                    unit = Unit.SHARE)
            double buildUp,

            @Setting(
                    called = "Cling",
                    means = "how tightly paint keeps to what it started on: 0 not at all, 1 stops at faint edges",
                    unit = Unit.SHARE)
            double cling,

            @Setting(means = "whose edges paint stops at where it clings")
            Edges edges,

            @Setting(means = "what the pressure of a pen changes")
            Pressure pressure) {
        private static final Declared<Brush> SETTINGS = Declared.of(Brush.class);

        public Brush {
            SETTINGS.check(erases, size, softness, buildUp, cling, edges, pressure);
        }

        /** Hard, full at once, and free of edges. */
        public static Brush of(double size) {
            return new Brush(false, size, 0, 1, 0, Edges.PHOTO, Pressure.NOTHING);
        }

        public Brush withCling(double value) {
            return new Brush(erases, size, softness, buildUp, value, edges, pressure);
        }

        public Brush withSoftness(double value) {
            return new Brush(erases, size, value, buildUp, cling, edges, pressure);
        }

        public Brush withBuildUp(double value) {
            return new Brush(erases, size, softness, value, cling, edges, pressure);
        }

        public Brush withPressure(Pressure value) {
            return new Brush(erases, size, softness, buildUp, cling, edges, value);
        }

        public Brush erasing() {
            return new Brush(true, size, softness, buildUp, cling, edges, pressure);
        }
    }

    private final Brush brush;
    private final float[] points;
    private final String key;

    /** @param points triples of x, y and pressure; copied */
    public Stroke(Brush brush, float... points) {
        if (points.length == 0 || points.length % VALUES != 0) {
            throw new IllegalArgumentException("a stroke needs x, y and pressure of at least one point");
        }
        if (points.length > VALUES * MOST_POINTS) {
            throw new IllegalArgumentException(
                    "a stroke has at most " + MOST_POINTS + " points, found " + points.length / VALUES);
        }
        for (int i = 0; i < points.length; i++) {
            boolean pressure = i % VALUES == 2;
            if (!(points[i] >= (pressure ? 0 : -FARTHEST) && points[i] <= (pressure ? 1 : FARTHEST))) {
                throw new IllegalArgumentException("a stroke's points must lie near the picture and their pressure in"
                        + " 0..1, found " + points[i]);
            }
        }
        this.brush = brush;
        this.points = points.clone();
        this.key = digest(brush, this.points);
    }

    public Brush brush() {
        return brush;
    }

    /** The same line, hard and full, with a brush that is not smaller than {@code size}. */
    Stroke atLeast(double size) {
        Brush plain = Brush.of(Math.max(size, brush.size()));
        return new Stroke(brush.erases() ? plain.erasing() : plain, points);
    }

    public int count() {
        return points.length / VALUES;
    }

    public float x(int point) {
        return points[point * VALUES];
    }

    public float y(int point) {
        return points[point * VALUES + 1];
    }

    public float pressure(int point) {
        return points[point * VALUES + 2];
    }

    /** The triples; a copy. */
    public float[] points() {
        return points.clone();
    }

    /** Equal strokes and only those have equal keys. */
    public String key() {
        return key;
    }

    @Override
    public boolean equals(Object other) {
        return other instanceof Stroke stroke && key.equals(stroke.key);
    }

    @Override
    public int hashCode() {
        return key.hashCode();
    }

    @Override
    public String toString() {
        return key;
    }

    private static String digest(Brush brush, float[] points) {
        try {
            MessageDigest digest = MessageDigest.getInstance("SHA-256");
            digest.update(brush.toString().getBytes(StandardCharsets.UTF_8));
            ByteBuffer bytes = ByteBuffer.allocate(points.length * Float.BYTES);
            bytes.asFloatBuffer().put(points);
            digest.update(bytes);
            return HexFormat.of().formatHex(digest.digest());
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException("every Java platform has SHA-256", e);
        }
    }

    /**
     * The same line with fewer points: none is left out that lies farther than {@code tolerance} from the line that stays, by
     * Douglas and Peucker (1973), and no pressure is lost by more than a twentieth. It departs from them in that a part that has been
     * divided {@value #MOST_DIVISIONS} times stays as it is, so that a line that cannot be simplified takes no longer than others.
     *
     * @param aspect the picture's width over its height
     * @param tolerance as a share of the width
     */
    public static float[] simplified(float[] points, double aspect, double tolerance) {
        int count = points.length / VALUES;
        boolean[] kept = new boolean[count];
        // First, last and how often divided; never more parts are open than one can be divided.
        int[] stack = new int[3 * (MOST_DIVISIONS + 2)];
        int top = 0;
        kept[0] = true;
        kept[count - 1] = true;
        stack[1] = count - 1;
        top += 3;
        while (top > 0) {
            top -= 3;
            int first = stack[top];
            int last = stack[top + 1];
            int divisions = stack[top + 2];
            if (divisions == MOST_DIVISIONS) {
                Arrays.fill(kept, first, last, true);
                continue;
            }
            int farthest = farthest(points, first, last, aspect, tolerance);
            if (farthest >= 0) {
                kept[farthest] = true;
                stack[top] = first;
                stack[top + 1] = farthest;
                stack[top + 2] = divisions + 1;
                stack[top + 3] = farthest;
                stack[top + 4] = last;
                stack[top + 5] = divisions + 1;
                top += 6;
            }
        }
        float[] out = new float[points.length];
        int length = 0;
        for (int i = 0; i < count; i++) {
            if (kept[i]) {
                System.arraycopy(points, i * VALUES, out, length, VALUES);
                length += VALUES;
            }
        }
        return Arrays.copyOf(out, length);
    }

    /** The point between two others that is farthest off the way between them; -1 when all are within the tolerance. */
    private static int farthest(float[] points, int first, int last, double aspect, double tolerance) {
        int farthest = -1;
        double most = 1;
        for (int i = first + 1; i < last; i++) {
            double off = off(points, first, last, i, aspect, tolerance);
            if (off > most) {
                most = off;
                farthest = i;
            }
        }
        return farthest;
    }

    /** How far a point is from a segment and its pressure, each over what is tolerated. */
    private static double off(float[] points, int first, int last, int i, double aspect, double tolerance) {
        double x0 = points[first * VALUES];
        double y0 = points[first * VALUES + 1] / aspect;
        double dx = points[last * VALUES] - x0;
        double dy = points[last * VALUES + 1] / aspect - y0;
        double px = points[i * VALUES] - x0;
        double py = points[i * VALUES + 1] / aspect - y0;
        double length = dx * dx + dy * dy;
        double along = length == 0 ? 0 : Math.max(0, Math.min(1, (px * dx + py * dy) / length));
        double distance = Math.hypot(px - along * dx, py - along * dy);
        double pressure = points[first * VALUES + 2] + along * (points[last * VALUES + 2] - points[first * VALUES + 2]);
        return Math.max(distance / tolerance, Math.abs(points[i * VALUES + 2] - pressure) / 0.05);
    }
}
