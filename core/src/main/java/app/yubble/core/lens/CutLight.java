package app.yubble.core.lens;

import app.yubble.core.raster.Bands;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import java.util.Arrays;

/**
 * How much light of small lamps the sensor cut off at white.
 *
 * <p>At the border of a lamp pixels are partly covered by it. Of a lamp that is just white all of them are darker than white; of one
 * that is many times brighter all but the least covered are white too, and the step to the background is steeper than a pixel. The light that
 * remains outside the white patch, summed up across its border, is therefore 1/(2L) of white for a lamp L times as bright; what the
 * optics spread adds about as much for all lamps and is taken off, measured on the steepest edges of the photo. One border is little to
 * measure by: lamps of about one size and colour are of one kind and measured together.
 */
public final class CutLight {
    /** Linear light that counts as cut off; eight bits end a little below 1. */
    private static final float WHITE = 0.985f;
    /** The same in a JPEG, which leaves cut off pixels a little below white. */
    private static final float NEARLY_WHITE = 0.955f;
    /** Pixels between both, over those above, from which a picture is taken for such a one. */
    private static final double COMPRESSED = 0.08;
    /** Linear light of pixels that are still within a lamp. */
    private static final float INSIDE = 0.85f;
    /** Times white, at most: beyond, the border says nothing any more. */
    public static final float BRIGHTEST = 16;
    /** Sides of pixels by which the kind counts as much as the lamp's own border. */
    private static final double KIND = 24;
    /** How much lamps count that are one and two steps of size apart, and those of one size. */
    private static final double[] ALIKE = {0.2, 0.6, 1, 0.6, 0.2};
    /** Sizes, in octaves of area. */
    private static final int SIZES = 28;
    /** Which channels are cut off. */
    private static final int COLOURS = 8;
    /** Share of the longer side up to which a patch is a lamp. */
    private static final double LAMP = 0.03;
    /** Share from which it is a window or the sky, of which nobody knows. */
    private static final double WINDOW = 0.06;
    /** Of the spread of the optics, in pixels: what it leaves outside the border of a bright lamp. */
    private static final double OUTSIDE = 0.2;
    /** Variance, in pixels, that the steepest edges have from the pixels alone. */
    private static final double OF_PIXELS = 0.21;
    /** Variance of the optics over what the steepest edges have beyond it; measured on scenes with a known spread. */
    private static final double OF_OPTICS = 1.55;
    /** Gradient of a step behind a Gaussian of one pixel, over its height. */
    private static final double GAUSSIAN_STEP = 1 / Math.sqrt(2 * Math.PI);
    /** Rows between those on which edges are measured. */
    private static final int ROWS_APART = 5;
    /** Pixels to each side of an edge over which its height is measured. */
    private static final int REACH = 4;
    /** Linear light between both sides of an edge that is measured. */
    private static final float STEP = 0.15f;
    /** Share of edges that are steeper than those by which the optics are judged. */
    private static final double STEEPEST = 0.1;
    /** Fewer edges tell nothing. */
    private static final int FEWEST = 50;

    /** Into which steepnesses from 0 to 1 are counted. */
    private static final int STEEPNESSES = 100;

    private final Picture photo;
    private final float[] peak;
    private final int width;
    private final int height;
    private final float white;

    private CutLight(Picture photo) {
        this.photo = photo;
        width = photo.width();
        height = photo.height();
        peak = new float[width * height];
        float[] red = photo.red().samples();
        float[] green = photo.green().samples();
        float[] blue = photo.blue().samples();
        Bands.ofRows(height, (from, to) -> {
            for (int i = from * width; i < to * width; i++) {
                peak[i] = Math.max(red[i], Math.max(green[i], blue[i]));
            }
        });
        white = white(peak);
    }

    private static float white(float[] peak) {
        int nearly = 0;
        int all = 0;
        for (float each : peak) {
            nearly += each >= NEARLY_WHITE && each < WHITE ? 1 : 0;
            all += each >= WHITE ? 1 : 0;
        }
        return nearly > COMPRESSED * all ? NEARLY_WHITE : WHITE;
    }

    /**
     * The light over white that lamps had, in times white: 0 for most pixels. To be reduced as light is, by its mean.
     *
     * @param photo at full size: a smaller one has no borders that tell anything
     */
    public static Plane of(Picture photo) {
        return new CutLight(photo).found();
    }

    /** Borders of lamps of one kind, or of one lamp. */
    private static final class Border {
        private double outside;
        private double sides;

        void add(Border other, double weight) {
            outside += weight * other.outside;
            sides += weight * other.sides;
        }
    }

    private Plane found() {
        Plane out = new Plane(photo.size());
        float[] cut = out.samples();
        for (int i = 0; i < cut.length; i++) {
            cut[i] = peak[i] >= white ? 1 : 0;
        }
        Patches patches = new Patches(out);
        int count = patches.count();
        if (count == 0) {
            return out;
        }
        double spread = OUTSIDE * spread();
        Border[] own = new Border[count];
        int[] area = new int[count];
        int[] colour = new int[count];
        for (int run = 0; run < count; run++) {
            int patch = patches.patch(run);
            if (own[patch] == null) {
                own[patch] = new Border();
            }
            for (int i = patches.from(run); i < patches.to(run); i++) {
                area[patch]++;
                colour[patch] |= colour(i);
                addSides(i, own[patch]);
            }
        }
        Border[][] kinds = kinds(own, area, colour);
        double longer = photo.size().longSide();
        for (int run = 0; run < count; run++) {
            int patch = patches.patch(run);
            double large = (Math.sqrt(area[patch]) / longer - LAMP) / (WINDOW - LAMP);
            double lamp = 1 - Math.max(0, Math.min(1, large));
            float more = (float) (lamp * (brightness(own[patch], kind(kinds, area[patch], colour[patch]), spread) - 1));
            Arrays.fill(cut, patches.from(run), patches.to(run), more);
        }
        return out;
    }

    private static double brightness(Border own, Border kind, double spread) {
        double weight = kind.sides == 0 ? 0 : Math.min(1, KIND / kind.sides);
        double outside = own.outside + weight * kind.outside;
        double sides = own.sides + weight * kind.sides;
        double mean = sides == 0 ? 1 : outside / sides - spread;
        return Math.max(1, Math.min(BRIGHTEST, 1 / (2 * Math.max(1 / (2 * BRIGHTEST), mean))));
    }

    private int colour(int i) {
        return (photo.red().samples()[i] >= white ? 1 : 0)
                + (photo.green().samples()[i] >= white ? 2 : 0)
                + (photo.blue().samples()[i] >= white ? 4 : 0);
    }

    private static int size(int area) {
        return Math.min(SIZES - 1, (int) (Math.log(area) / Math.log(2)));
    }

    private static Border[][] kinds(Border[] own, int[] area, int[] colour) {
        Border[][] out = new Border[COLOURS][SIZES];
        for (int patch = 0; patch < own.length; patch++) {
            if (own[patch] != null) {
                Border[] sizes = out[colour[patch]];
                int size = size(area[patch]);
                if (sizes[size] == null) {
                    sizes[size] = new Border();
                }
                sizes[size].add(own[patch], 1);
            }
        }
        return out;
    }

    private static Border kind(Border[][] kinds, int area, int colour) {
        Border out = new Border();
        for (int k = 0; k < ALIKE.length; k++) {
            int size = size(area) + k - ALIKE.length / 2;
            if (size >= 0 && size < SIZES && kinds[colour][size] != null) {
                out.add(kinds[colour][size], ALIKE[k]);
            }
        }
        return out;
    }

    /** Light outside the patch, over the background, beyond each side of a pixel that is its border. */
    private void addSides(int i, Border to) {
        int x = i % width;
        int y = i / width;
        addSide(x, y, 1, 0, to);
        addSide(x, y, -1, 0, to);
        addSide(x, y, 0, 1, to);
        addSide(x, y, 0, -1, to);
    }

    private void addSide(int x, int y, int dx, int dy, Border to) {
        int u = x + dx;
        int v = y + dy;
        if (u < 0 || v < 0 || u >= width || v >= height || peak[v * width + u] >= white) {
            return;
        }
        float first = peak[v * width + u];
        float second = peakAt(u + dx, v + dy);
        float third = peakAt(u + 2 * dx, v + 2 * dy);
        if (Math.max(second, third) > INSIDE) {
            // Noise has left a pixel within the lamp below white.
            return;
        }
        float ground = Math.min(first, Math.min(second, third));
        to.outside += Math.min(1, (first - ground) / (1 - ground)) + Math.min(1, (second - ground) / (1 - ground));
        to.sides++;
    }

    private float peakAt(int x, int y) {
        return peak[Math.max(0, Math.min(height - 1, y)) * width + Math.max(0, Math.min(width - 1, x))];
    }

    /** Width of the Gaussian that the optics spread a point to, in pixels, by the steepest edges. */
    private double spread() {
        int[] counts = new int[STEEPNESSES + 1];
        int all = 0;
        for (int y = 0; y < height; y += ROWS_APART) {
            int row = y * width;
            for (int x = REACH; x + REACH + 1 < width; x++) {
                float gradient = Math.abs(peak[row + x + 1] - peak[row + x]);
                float step = Math.abs(peak[row + x + 1 + REACH] - peak[row + x - REACH]);
                if (step > STEP && gradient > step / (2 * REACH) && isEdge(row + x, step)) {
                    counts[(int) (STEEPNESSES * Math.min(1, gradient / step))]++;
                    all++;
                }
            }
        }
        if (all < FEWEST) {
            return 0;
        }
        int steeper = 0;
        int at = STEEPNESSES;
        while (at > 1 && steeper + counts[at] < STEEPEST * all) {
            steeper += counts[at--];
        }
        double measured = GAUSSIAN_STEP * STEEPNESSES / at;
        return Math.sqrt(Math.max(0, OF_OPTICS * (measured * measured - OF_PIXELS)));
    }

    /** Whether it is steepest here, and goes one way from one side to the other, without anything that is cut off. */
    private boolean isEdge(int i, float step) {
        float up = Math.signum(peak[i + 1] - peak[i]);
        float steepest = Math.abs(peak[i + 1] - peak[i]);
        for (int k = -REACH; k <= REACH; k++) {
            float rise = up * (peak[i + k + 1] - peak[i + k]);
            if (rise < -0.1f * step || rise > steepest || peak[i + k] >= white || peak[i + k + 1] >= white) {
                return false;
            }
        }
        return true;
    }
}
