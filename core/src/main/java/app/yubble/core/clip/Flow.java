package app.yubble.core.clip;

import app.yubble.core.raster.Bands;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Size;

/**
 * Where things go from one frame to another, in pixels: what is at (x, y) in the one is at (x + across, y + down) in the other.
 *
 * @param across of the size of {@code down}
 */
public record Flow(Plane across, Plane down) {
    /** Of the squared length of the movement, and in squared pixels: Sundaram, Brox and Keutzer, "Dense Point Trajectories" (ECCV 2010), section 3. */
    private static final float LENGTH_TOLERANCE = 0.01f;
    /** See {@link #LENGTH_TOLERANCE}. */
    private static final float TOLERANCE = 0.5f;

    public Flow {
        if (!across.size().equals(down.size())) {
            throw new IllegalArgumentException("both directions of a flow must have one size");
        }
    }

    /** Nothing moves. */
    public static Flow none(Size size) {
        return new Flow(new Plane(size), new Plane(size));
    }

    public Size size() {
        return across.size();
    }

    /** What of the other frame is seen at each pixel of this one; beyond the border the nearest. */
    public Plane fetch(Plane other) {
        Plane out = new Plane(size());
        int width = out.width();
        Bands.ofRows(out.height(), (from, to) -> {
            for (int y = from, i = from * width; y < to; y++) {
                for (int x = 0; x < width; x++, i++) {
                    out.samples()[i] = sample(other, x + across.samples()[i], y + down.samples()[i]);
                }
            }
        });
        return out;
    }

    /** Between the centres of pixels. */
    private static float sample(Plane from, float x, float y) {
        int width = from.width();
        float px = Math.max(0, Math.min(width - 1, x));
        float py = Math.max(0, Math.min(from.height() - 1, y));
        int left = Math.min((int) px, Math.max(0, width - 2));
        int top = Math.min((int) py, Math.max(0, from.height() - 2));
        int right = Math.min(left + 1, width - 1);
        int bottom = Math.min(top + 1, from.height() - 1);
        float fx = px - left;
        float fy = py - top;
        float[] s = from.samples();
        float above = s[top * width + left] + fx * (s[top * width + right] - s[top * width + left]);
        float below = s[bottom * width + left] + fx * (s[bottom * width + right] - s[bottom * width + left]);
        return above + fy * (below - above);
    }

    /**
     * How far the way there and back leads to where it began, in [0,1] for each pixel; 0 where things are hidden in the other frame
     * or lie outside it.
     *
     * @param back from the other frame to this one
     */
    public Plane agreement(Flow back) {
        Plane there = fetch(back.across);
        Plane too = fetch(back.down);
        Plane out = new Plane(size());
        int width = out.width();
        for (int y = 0, i = 0; y < out.height(); y++) {
            for (int x = 0; x < width; x++, i++) {
                float dx = across.samples()[i];
                float dy = down.samples()[i];
                float bx = there.samples()[i];
                float by = too.samples()[i];
                boolean inside =
                        x + dx >= -0.5f && y + dy >= -0.5f && x + dx <= width - 0.5f && y + dy <= out.height() - 0.5f;
                float miss = (dx + bx) * (dx + bx) + (dy + by) * (dy + by);
                float allowed = LENGTH_TOLERANCE * (dx * dx + dy * dy + bx * bx + by * by) + TOLERANCE;
                out.samples()[i] = inside ? Math.max(0, 1 - miss / allowed) : 0;
            }
        }
        return out;
    }
}
