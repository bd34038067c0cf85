package app.yubble.core.touchup;

import app.yubble.core.raster.Bands;
import app.yubble.core.raster.Region;
import app.yubble.core.raster.Size;
import java.util.Arrays;
import org.jspecify.annotations.Nullable;

/**
 * What a stroke covers, without regard to edges.
 *
 * <p>At full build-up a pixel's paint is that of the brush at its distance from the line, exactly. Below that, dabs at every
 * {@value #SPACING}th of the diameter each add their share of what is missing to full, so slow paint builds up evenly and
 * never passes full. Dabs lie at fixed places along the line, so all sizes of the picture get the same.
 */
final class Footprint {
    /** Dabs in one diameter: so close that no single one can be seen. */
    private static final int SPACING = 8;
    /** A longer stroke gets wider spacing. */
    private static final int MOST_DABS = 200_000;
    /** Of the curve over the radius, and at least {@link #LEAST_TOLERANCE} pixels: not to be seen. */
    private static final double TOLERANCE = 0.01;
    /** See {@link #TOLERANCE}. */
    private static final double LEAST_TOLERANCE = 0.2;

    private final Stroke stroke;
    private final Size size;

    private Footprint(Stroke stroke, Size size) {
        this.stroke = stroke;
        this.size = size;
    }

    static Mask of(Stroke stroke, Size size) {
        return of(stroke, size, Region.all(size));
    }

    /** Within {@code part} of the picture only. */
    static Mask of(Stroke stroke, Size size, Region part) {
        return new Footprint(simpler(stroke, size), size).mask(part);
    }

    private double px(int point) {
        return stroke.x(point) * size.width();
    }

    private double py(int point) {
        return stroke.y(point) * size.height();
    }

    private double radius(double pressure) {
        double whole = stroke.brush().size() * size.longSide() / 2;
        return stroke.brush().pressure() == Stroke.Pressure.SIZE ? whole * pressure : whole;
    }

    private double flow(double pressure) {
        double whole = stroke.brush().buildUp();
        return stroke.brush().pressure() == Stroke.Pressure.BUILD_UP ? whole * pressure : whole;
    }

    private Mask mask(Region part) {
        Region covered = box();
        Region box = covered == null ? null : covered.meet(part);
        if (box == null) {
            return Mask.empty(size);
        }
        float[] shares = new float[box.width() * box.height()];
        boolean atOnce = stroke.brush().buildUp() == 1 && stroke.brush().pressure() != Stroke.Pressure.BUILD_UP;
        float[] stamps = atOnce ? segments() : dabs();
        Bands.ofRows(box.height(), (from, to) -> {
            for (int i = 0; i < stamps.length; i += Segment.VALUES) {
                Segment segment = new Segment(stamps, i);
                for (int y = Math.max(from, segment.top() - box.y());
                        y < Math.min(to, segment.bottom() - box.y());
                        y++) {
                    paintRow(segment, y, box, shares, atOnce);
                }
            }
        });
        return Mask.of(size, box, shares);
    }

    private void paintRow(Segment segment, int y, Region box, float[] shares, boolean atOnce) {
        int first = Math.max(0, segment.left() - box.x());
        int last = Math.min(box.width(), segment.right() - box.x());
        for (int x = first, i = y * box.width() + first; x < last; x++, i++) {
            if (shares[i] == 1) {
                continue;
            }
            float paint = segment.paint(
                    x + box.x() + 0.5, y + box.y() + 0.5, stroke.brush().softness());
            shares[i] = atOnce ? Math.max(shares[i], paint) : shares[i] + paint * (1 - shares[i]);
        }
    }

    /** Within the picture; null when the stroke misses it. */
    private @Nullable Region box() {
        double x0 = Double.MAX_VALUE;
        double y0 = Double.MAX_VALUE;
        double x1 = -Double.MAX_VALUE;
        double y1 = -Double.MAX_VALUE;
        for (int i = 0; i < stroke.count(); i++) {
            double reach = Math.max(0.5, radius(stroke.pressure(i))) + 1;
            x0 = Math.min(x0, px(i) - reach);
            y0 = Math.min(y0, py(i) - reach);
            x1 = Math.max(x1, px(i) + reach);
            y1 = Math.max(y1, py(i) + reach);
        }
        int left = (int) Math.max(0, Math.floor(x0));
        int top = (int) Math.max(0, Math.floor(y0));
        int right = (int) Math.min(size.width(), Math.ceil(x1));
        int bottom = (int) Math.min(size.height(), Math.ceil(y1));
        return left < right && top < bottom ? new Region(left, top, right - left, bottom - top) : null;
    }

    // A scribble with a wide brush has hundreds of points that a hundredth of the brush's radius does not show.
    private static Stroke simpler(Stroke stroke, Size size) {
        double radius = stroke.brush().size() * size.longSide() / 2;
        double tolerance = Math.max(LEAST_TOLERANCE, TOLERANCE * radius) / size.width();
        return new Stroke(
                stroke.brush(), Stroke.simplified(stroke.points(), (double) size.width() / size.height(), tolerance));
    }

    private float[] segments() {
        int count = Math.max(1, stroke.count() - 1);
        float[] out = new float[count * Segment.VALUES];
        for (int i = 0; i < count; i++) {
            int next = Math.min(stroke.count() - 1, i + 1);
            Segment.put(out, i, end(i), end(next), 1);
        }
        return out;
    }

    private float[] dabs() {
        double length = 0;
        for (int i = 1; i < stroke.count(); i++) {
            length += Math.hypot(px(i) - px(i - 1), py(i) - py(i - 1));
        }
        double spacing = Math.max(stroke.brush().size() * size.longSide() / SPACING, length / MOST_DABS);
        int count = 1 + (int) Math.floor(length / spacing + 1e-6);
        float[] out = new float[count * Segment.VALUES];
        put(out, 0, 0, 0);
        double gone = 0;
        int made = 1;
        for (int i = 1; i < stroke.count() && made < count; i++) {
            double step = Math.hypot(px(i) - px(i - 1), py(i) - py(i - 1));
            while (made < count && made * spacing <= gone + step + 1e-6) {
                put(out, made, i - 1, step == 0 ? 0 : (made * spacing - gone) / step);
                made++;
            }
            gone += step;
        }
        return Arrays.copyOf(out, made * Segment.VALUES);
    }

    private void put(float[] out, int dab, int point, double along) {
        int next = Math.min(stroke.count() - 1, point + 1);
        double x = px(point) + along * (px(next) - px(point));
        double y = py(point) + along * (py(next) - py(point));
        double pressure = stroke.pressure(point) + along * (stroke.pressure(next) - stroke.pressure(point));
        End place = new End(x, y, radius(pressure));
        Segment.put(out, dab, place, place, flow(pressure));
    }

    private record End(double x, double y, double radius) {}

    private End end(int point) {
        return new End(px(point), py(point), radius(stroke.pressure(point)));
    }

    /** A piece of the line, or one dab, from an array that many share. */
    private static final class Segment {
        /** Of a segment: two ends, two pressures, and what is derived from them. */
        static final int VALUES = 7;

        private final double x0;
        private final double y0;
        private final double r0;
        private final double dx;
        private final double dy;
        private final double dr;
        private final double flow;
        private final double length;

        Segment(float[] from, int at) {
            x0 = from[at];
            y0 = from[at + 1];
            r0 = from[at + 2];
            dx = from[at + 3] - x0;
            dy = from[at + 4] - y0;
            dr = from[at + 5] - r0;
            flow = from[at + 6];
            length = dx * dx + dy * dy;
        }

        static void put(float[] to, int index, End from, End until, double flow) {
            double[] values = {from.x(), from.y(), from.radius(), until.x(), until.y(), until.radius(), flow};
            for (int i = 0; i < VALUES; i++) {
                to[index * VALUES + i] = (float) values[i];
            }
        }

        private double reach() {
            return Math.max(0.5, Math.max(r0, r0 + dr)) + 1;
        }

        int top() {
            return (int) Math.floor(Math.min(y0, y0 + dy) - reach());
        }

        int bottom() {
            return (int) Math.ceil(Math.max(y0, y0 + dy) + reach());
        }

        int left() {
            return (int) Math.floor(Math.min(x0, x0 + dx) - reach());
        }

        int right() {
            return (int) Math.ceil(Math.max(x0, x0 + dx) + reach());
        }

        /** A rim is one pixel wide at least; a brush narrower than a pixel paints it in part. */
        float paint(double x, double y, double softness) {
            double along = length == 0 ? 0 : Math.max(0, Math.min(1, ((x - x0) * dx + (y - y0) * dy) / length));
            double px = x - x0 - along * dx;
            double py = y - y0 - along * dy;
            double distance = Math.sqrt(px * px + py * py);
            double whole = r0 + along * dr;
            double radius = Math.max(0.5, whole);
            if (distance >= radius + 0.5) {
                return 0;
            }
            double edge = Math.min(1, radius + 0.5 - distance) * Math.min(1, 4 * whole * whole);
            double soft = softness * radius;
            double inside = soft <= 0.5 ? 1 : Math.min(1, Math.max(0, radius - distance) / soft);
            double eased = inside * inside * (3 - 2 * inside);
            return (float) (flow * Math.min(1, edge) * eased);
        }
    }
}
