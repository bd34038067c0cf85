package app.yubble.core.shape;

import app.yubble.core.raster.Region;
import app.yubble.core.raster.Size;
import org.jspecify.annotations.Nullable;

/** The outline of a blur shape in the pixels of a picture, with its soft border. */
final class Outline {
    /** Share of a smooth rise that lies between a tenth and nine tenths of it. */
    private static final double TENTH_TO_NINE = 1 - 2 * (0.5 - Math.sin(Math.asin(0.8) / 3));
    /** Pixels; a border that is not soft still ends between pixels. */
    private static final double LEAST_RISE = 1;
    /** Steps towards the nearest point of an ellipse; the third moves it by less than a thousandth of its size. */
    private static final int STEPS = 4;
    /** Where the search for that point begins: half way round a quarter. */
    private static final double DIAGONAL = Math.sqrt(0.5);

    private final BlurShape.Form form;
    private final boolean outside;
    private final double x;
    private final double y;
    private final double cos;
    private final double sin;
    /** Half of its width and height, in pixels. */
    private final double across;

    private final double down;
    private final double round;
    /** Half of the way on which its blur rises from nothing to all, in pixels. */
    private final double rise;

    Outline(BlurShape shape, Size size) {
        Place place = shape.place();
        form = shape.form();
        outside = shape.outside();
        x = place.x() * size.width() - 0.5;
        y = place.y() * size.height() - 0.5;
        double turn = Math.toRadians(place.turn());
        cos = Math.cos(turn);
        sin = Math.sin(turn);
        across = place.width() * size.longSide() / 2;
        down = place.height() * size.longSide() / 2;
        round = form == BlurShape.Form.RECTANGLE ? shape.corners() * Math.min(across, down) : 0;
        rise = Math.max(LEAST_RISE, shape.soft() * size.longSide() / TENTH_TO_NINE) / 2;
    }

    /** Where it has any effect; null for nowhere in the picture. */
    @Nullable
    Region box(Size size) {
        if (outside || form == BlurShape.Form.LINE) {
            return Region.all(size);
        }
        // Of the turned rectangle around it.
        double halfWidth = Math.abs(cos) * across + Math.abs(sin) * down + rise;
        double halfHeight = Math.abs(sin) * across + Math.abs(cos) * down + rise;
        int left = (int) Math.max(0, Math.floor(x - halfWidth));
        int top = (int) Math.max(0, Math.floor(y - halfHeight));
        int right = (int) Math.min(size.width(), Math.ceil(x + halfWidth) + 1);
        int bottom = (int) Math.min(size.height(), Math.ceil(y + halfHeight) + 1);
        return right <= left || bottom <= top ? null : new Region(left, top, right - left, bottom - top);
    }

    /** How strongly it acts at a pixel, in [0,1]. */
    double share(int atX, int atY) {
        double dx = atX - x;
        double dy = atY - y;
        double inside = -distance(Math.abs(cos * dx + sin * dy), Math.abs(cos * dy - sin * dx));
        double share = smooth(0.5 + inside / (2 * rise));
        return outside ? 1 - share : share;
    }

    /** How far a place lies outside, negative inside; beyond the border it need not be exact. */
    private double distance(double u, double v) {
        return switch (form) {
            case LINE -> v - down;
            case RECTANGLE -> {
                double overU = u - across + round;
                double overV = v - down + round;
                double corner = Math.hypot(Math.max(0, overU), Math.max(0, overV));
                yield Math.min(0, Math.max(overU, overV)) + corner - round;
            }
            case ELLIPSE -> toEllipse(u, v);
        };
    }

    /** Goes to the nearest point by way of the centre of curvature of the last one, which settles in a few steps everywhere. */
    private double toEllipse(double u, double v) {
        double scaled = Math.hypot(u / across, v / down) - 1;
        double atLeast = scaled * Math.min(across, down);
        if (Math.abs(atLeast) > rise) {
            return atLeast;
        }
        double bend = across * across - down * down;
        double tu = DIAGONAL;
        double tv = DIAGONAL;
        for (int i = 0; i < STEPS; i++) {
            double centreU = bend * tu * tu * tu / across;
            double centreV = -bend * tv * tv * tv / down;
            double radius = Math.hypot(across * tu - centreU, down * tv - centreV);
            double away = Math.hypot(u - centreU, v - centreV);
            if (away == 0) {
                return -radius;
            }
            tu = Math.max(0, Math.min(1, ((u - centreU) * radius / away + centreU) / across));
            tv = Math.max(0, Math.min(1, ((v - centreV) * radius / away + centreV) / down));
            double length = Math.hypot(tu, tv);
            tu /= length;
            tv /= length;
        }
        double distance = Math.hypot(across * tu - u, down * tv - v);
        return scaled < 0 ? -distance : distance;
    }

    static double smooth(double share) {
        double t = Math.max(0, Math.min(1, share));
        return t * t * (3 - 2 * t);
    }
}
