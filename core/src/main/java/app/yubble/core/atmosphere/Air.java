package app.yubble.core.atmosphere;

import app.yubble.core.raster.Bands;
import app.yubble.core.raster.Luminance;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Region;

/** Puts a picture into its atmosphere. Every pixel depends on that pixel alone. */
public final class Air {
    /** Steps of nearness in which the optical depth is looked up. */
    private static final int NEARNESS_STEPS = 1 << 14;
    /** Steps of an optical depth of 1. */
    private static final int DEPTH_STEPS = 1024;
    /** Optical depth from which nothing is seen through: a thousandth of the light is left. */
    private static final int MOST_DEPTH = 7;
    /** Steps of a pixel in which weights of radii are looked up. */
    private static final int RADIUS_STEPS = 8;
    /** Radius over the longer side at which tone acts by two thirds: what is that blurred has lost its details. By eye. */
    private static final double TONED = 0.004;
    /** Radius in pixels up to which a pixel counts as sharp. */
    private static final float SHARP = 0.5f;
    /** Radius over the longer side from which nothing is given back to it; at least {@link #UNSHARP} pixels. */
    private static final double UNSHARP_SIDE = 0.0015;
    /** Pixels of radius from which a pixel of a small picture is unsharp. */
    private static final float UNSHARP = 1.5f;

    private final Atmosphere atmosphere;
    private final MistColour colour;
    /** Optical depth by nearness. */
    private final float[] depths = new float[NEARNESS_STEPS + 1];
    /** What mist leaves of the light, by optical depth. */
    private final float[] leaves = new float[MOST_DEPTH * DEPTH_STEPS + 1];
    /** How much tone acts, by radius. */
    private final float[] acts;

    private final float unsharp;

    /** @param longSide of the picture in pixels */
    public Air(Atmosphere atmosphere, MistColour colour, int longSide) {
        this.atmosphere = atmosphere;
        this.colour = colour;
        for (int i = 0; i < depths.length; i++) {
            depths[i] = (float) atmosphere.mist().depth((double) i / NEARNESS_STEPS);
        }
        for (int i = 0; i < leaves.length; i++) {
            leaves[i] = (float) Math.exp(-(double) i / DEPTH_STEPS);
        }
        double toned = Math.max(1, TONED * longSide);
        // Ten times that radius, where e^-10 is left, and 0 before it.
        acts = new float[(int) (10 * toned * RADIUS_STEPS) + 1];
        for (int i = 0; i < acts.length; i++) {
            acts[i] = (float) (1 - Math.exp(-i / (toned * RADIUS_STEPS)));
        }
        unsharp = (float) Math.max(UNSHARP, UNSHARP_SIDE * longSide);
    }

    /** @param nearness may leave [0,1] where blur was painted; it counts as its ends there */
    public Picture of(Picture picture, Plane nearness, Plane radii) {
        Picture out = picture.copy();
        renew(out, Region.all(out.size()), picture, nearness, radii);
        return out;
    }

    /**
     * Makes a part of {@code own} anew, in place.
     *
     * @param picture may be {@code own}
     */
    public void renew(Picture own, Region part, Picture picture, Plane nearness, Plane radii) {
        boolean mist = !atmosphere.mist().isNone();
        boolean tone = !atmosphere.keepsTone();
        Bands.ofRows(part.height(), (from, to) -> {
            for (int y = part.y() + from; y < part.y() + to; y++) {
                int first = y * own.width() + part.x();
                for (int c = 0; c < 3; c++) {
                    System.arraycopy(
                            picture.planes().get(c).samples(),
                            first,
                            own.planes().get(c).samples(),
                            first,
                            part.width());
                }
                if (tone) {
                    tone(own, radii.samples(), first, first + part.width());
                }
                if (mist) {
                    double up = 1 - (y + 0.5) / own.height();
                    mist(own, nearness.samples(), radii.samples(), first, first + part.width(), up);
                }
            }
        });
    }

    private void tone(Picture own, float[] radii, int first, int end) {
        float[] red = own.red().samples();
        float[] green = own.green().samples();
        float[] blue = own.blue().samples();
        float[] front = atmosphere.front().gains();
        float[] behind = atmosphere.behind().gains();
        float frontColour = (float) atmosphere.front().colour();
        float behindColour = (float) atmosphere.behind().colour();
        for (int i = first; i < end; i++) {
            float radius = radii[i];
            if (radius == 0) {
                continue;
            }
            float share = acts[Math.min(acts.length - 1, (int) (Math.abs(radius) * RADIUS_STEPS))];
            float[] gains = radius < 0 ? front : behind;
            float r = red[i] * (1 + share * (gains[0] - 1));
            float g = green[i] * (1 + share * (gains[1] - 1));
            float b = blue[i] * (1 + share * (gains[2] - 1));
            float grey = Luminance.RED * r + Luminance.GREEN * g + Luminance.BLUE * b;
            float colourful = 1 + share * (radius < 0 ? frontColour : behindColour);
            red[i] = Math.max(0, grey + colourful * (r - grey));
            green[i] = Math.max(0, grey + colourful * (g - grey));
            blue[i] = Math.max(0, grey + colourful * (b - grey));
        }
    }

    private void mist(Picture own, float[] nearness, float[] radii, int first, int end, double up) {
        float[] red = own.red().samples();
        float[] green = own.green().samples();
        float[] blue = own.blue().samples();
        float dense = (float) (atmosphere.mist().shareAt(up) * DEPTH_STEPS);
        float clearing = (float) atmosphere.mist().clearing();
        for (int i = first; i < end; i++) {
            float near = Math.max(0, Math.min(1, nearness[i]));
            float depth = depths[(int) (near * NEARNESS_STEPS)] * dense;
            float hides = 1 - leaves[Math.min(leaves.length - 1, (int) depth)];
            if (clearing > 0) {
                hides *= 1 - clearing * sharpness(Math.abs(radii[i]));
            }
            red[i] += hides * (colour.red() - red[i]);
            green[i] += hides * (colour.green() - green[i]);
            blue[i] += hides * (colour.blue() - blue[i]);
        }
    }

    private float sharpness(float radius) {
        float over = Math.max(0, Math.min(1, (radius - SHARP) / (unsharp - SHARP)));
        return 1 - over * over * (3 - 2 * over);
    }
}
