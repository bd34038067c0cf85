package app.yubble.core.focus;

import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Resample;
import app.yubble.core.raster.Size;
import app.yubble.core.subject.Face;
import app.yubble.core.subject.Instances;
import java.util.Arrays;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * Finds the sharp band for a point, a box or the likely main subject.
 *
 * <p>All three take a robust look at the nearness around the place instead of one pixel: the map may be off by a few
 * pixels at an edge, and a click rarely is on the exact pixel meant.
 */
public final class FocusFinder {
    /** Falloff that {@link #subject}, {@link #spot} and {@link #patch} give on both sides. */
    public static final double FALLOFF = 0.06;

    /** Band around a spot, in nearness. By eye on the demo photos. */
    private static final double SPOT_WIDTH = 0.06;
    /** Band over a subject, at least. */
    private static final double SUBJECT_WIDTH = 0.10;
    /** Longer side at which the likely subject is guessed; detail that matters is larger than a pixel of it. */
    private static final int WORKING_SIDE = 256;
    /** Longer side at which things in a matte are counted and measured. */
    private static final int MATTE_SIDE = 512;
    /** Matte from which a pixel is all subject, and none of it hair. */
    private static final float WELL_INSIDE = 0.9f;
    /** The closest half of a subject is where the search begins. */
    private static final double HALF = 0.5;
    /** Holds the outermost pixels in, whose nearness is the edge of the band itself. */
    private static final double ROUNDING = 1e-5;
    /** In nearness; limbs fade more slowly, and the next thing stands farther away. By eye on the demo photos. */
    private static final float GAP = 0.03f;
    /** Share of the pixels that may lie in a gap: mixed ones at edges. */
    private static final double HARDLY_ANY = 0.002;
    /** The rest may be a hole in the matte, or a neighbour that stands apart. */
    private static final double MOST_OF_SEVERAL = 0.9;

    /** Of what goes on without a gap; the rest is mixed pixels. */
    private static final double ALL_OF_ONE = 0.99;
    /** Share of a matte from which a thing is the subject, and the rest is its ball, its bag or its neighbour's elbow. */
    private static final double MAIN_SHARE = 0.7;

    /** Height of a face, over the picture's, from which a picture is a portrait; on smaller ones the figure is sharp. By eye. */
    private static final double PORTRAIT = 0.12;
    /** Share of the box around a face that is face and not hair or what lies behind. */
    private static final double FACE_SHARE = 0.8;

    private FocusFinder() {}

    /**
     * A band over the main subject.
     *
     * @param matte the subject's matte, of any size with the picture's shape; null when there is no clear one, then the
     *     subject is guessed from detail, nearness and place
     */
    public static SharpBand subject(Picture picture, Plane nearness, @Nullable Plane matte) {
        return matte == null ? likely(picture, nearness) : thing(nearness, matte, 1);
    }

    /**
     * A band over the main subject, or over the main face when it is a portrait.
     *
     * @param faces the main one first
     */
    public static SharpBand subject(Picture picture, Plane nearness, @Nullable Plane matte, List<Face> faces) {
        return !faces.isEmpty() && faces.get(0).height() > PORTRAIT
                ? face(nearness, faces.get(0))
                : subject(picture, nearness, matte);
    }

    /** A band over a face: over nine tenths of it, and always over its nearer eye. */
    public static SharpBand face(Plane nearness, Face face) {
        double eye = Math.max(eye(nearness, face.one()), eye(nearness, face.other()));
        double middleX = face.middle().x() * nearness.width();
        double middleY = face.middle().y() * nearness.height();
        double across = FACE_SHARE * face.width() * nearness.width() / 2;
        double down = FACE_SHARE * face.height() * nearness.height() / 2;
        int first = (int) Math.max(0, Math.ceil(middleY - down));
        int last = (int) Math.min(nearness.height() - 1, Math.floor(middleY + down));
        int left = (int) Math.max(0, Math.ceil(middleX - across));
        int right = (int) Math.min(nearness.width() - 1, Math.floor(middleX + across));
        float[] inside = new float[Math.max(0, last - first + 1) * Math.max(0, right - left + 1)];
        int count = 0;
        for (int y = first; y <= last; y++) {
            for (int x = left; x <= right; x++) {
                if (Math.hypot((x - middleX) / across, (y - middleY) / down) <= 1) {
                    inside[count++] = nearness.at(x, y);
                }
            }
        }
        double near = eye;
        double far = eye;
        if (count > 0) {
            Arrays.sort(inside, 0, count);
            float[] ends = densest(inside, 0, count, MOST_OF_SEVERAL);
            near = Math.max(eye, ends[1]);
            far = Math.min(eye, ends[0]);
        }
        return SharpBand.around((near + far) / 2, Math.max(SPOT_WIDTH, near - far + ROUNDING), FALLOFF);
    }

    private static double eye(Plane nearness, Face.Point at) {
        return spot(nearness, at.x() * nearness.width(), at.y() * nearness.height())
                .centre();
    }

    /**
     * A band that keeps the tilt of another: it is looked for in the nearness that the tilted band sees. Where the place
     * lies so far off the middle that no band of that tilt reaches it, the new one is level.
     *
     * @param finding one of the other methods
     */
    public static SharpBand tiltedAs(SharpBand band, Plane nearness, Finding finding) {
        if (band.isLevel()) {
            return finding.find(nearness);
        }
        SharpBand found = finding.find(levelled(nearness, band));
        return found.near() - found.far() < SPOT_WIDTH / 2
                ? finding.find(nearness)
                : found.tilted(band.tiltAcross(), band.tiltDown());
    }

    /** Finds a band in nearness. */
    @FunctionalInterface
    public interface Finding {
        SharpBand find(Plane nearness);
    }

    private static Plane levelled(Plane nearness, SharpBand band) {
        Plane out = new Plane(nearness.size());
        for (int y = 0, i = 0; y < out.height(); y++) {
            for (int x = 0; x < out.width(); x++, i++) {
                double tilt = band.tiltAt((x + 0.5) / out.width(), (y + 0.5) / out.height());
                out.samples()[i] = (float) (nearness.samples()[i] - tilt);
            }
        }
        return out;
    }

    /** The things in a matte as {@link #thing} counts them, at a reduced size. */
    public static Instances things(Plane matte) {
        return Instances.of(Resample.toSize(matte, matte.size().fitting(MATTE_SIDE)));
    }

    /**
     * A band over one of the things in a matte: over those nine tenths of it that lie closest together, or nearly all when there is
     * little else. Depth fades along limbs, and hands and feet would be left out.
     *
     * @param number of {@link #things}, 1 for the largest
     */
    public static SharpBand thing(Plane nearness, Plane matte, int number) {
        Size size = nearness.size().fitting(MATTE_SIDE);
        Plane near = Resample.pick(nearness, size);
        Plane alpha = Resample.toSize(matte, size);
        Instances things = Instances.of(alpha);
        float[] inside = new float[alpha.samples().length];
        int count = 0;
        int all = 0;
        for (int i = 0; i < inside.length; i++) {
            if (things.labels()[i] > 0 && alpha.samples()[i] > WELL_INSIDE) {
                all++;
                if (things.labels()[i] == number) {
                    inside[count++] = near.samples()[i];
                }
            }
        }
        if (count == 0) {
            return SharpBand.around(0.5, SUBJECT_WIDTH, FALLOFF);
        }
        Arrays.sort(inside, 0, count);
        boolean main = count >= MAIN_SHARE * all;
        float[] ends = densest(inside, 0, count, main ? HALF : MOST_OF_SEVERAL);
        if (main) {
            int[] own = joined(inside, count, ends);
            ends = densest(inside, own[0], own[1], ALL_OF_ONE);
        }
        double width = (double) ends[1] - ends[0] + ROUNDING;
        return SharpBand.around(((double) ends[0] + ends[1]) / 2, Math.max(SUBJECT_WIDTH, width), FALLOFF);
    }

    /** The first and the last of the {@code share} of sorted values that lie closest together, from {@code from} to {@code to} (exclusive). */
    private static float[] densest(float[] sorted, int from, int to, double share) {
        int span = Math.max(1, (int) ((to - from) * share)) - 1;
        int best = from;
        for (int first = from; first + span < to; first++) {
            if (sorted[first + span] - sorted[first] < sorted[best + span] - sorted[best]) {
                best = first;
            }
        }
        return new float[] {sorted[best], sorted[best + span]};
    }

    /** What goes on from {@code ends} without a gap: a limb does, what a matte took in by mistake stands apart. From and to (exclusive). */
    private static int[] joined(float[] sorted, int count, float[] ends) {
        int from = 0;
        int to = count;
        int few = (int) (count * HARDLY_ANY);
        int low = 0;
        for (int i = 0; i < count; i++) {
            while (sorted[i] - sorted[low] > GAP) {
                low++;
            }
            // So few lie within a gap's length below this one.
            boolean apart = i - low <= few && sorted[i] - sorted[0] > GAP;
            if (apart && sorted[i] <= ends[0]) {
                from = i;
            } else if (apart && sorted[i] > ends[1]) {
                to = i;
                break;
            }
        }
        return new int[] {from, to};
    }

    /**
     * A narrow band around the nearness at a point: the median of a disc of 0.6 % of the longer side.
     *
     * @param x in pixels of the nearness plane, clamped into it
     * @param y likewise
     */
    public static SharpBand spot(Plane nearness, double x, double y) {
        int radius = Math.max(1, Math.round(nearness.size().longSide() * 0.006f));
        int cx = (int) Math.max(0, Math.min(nearness.width() - 1, Math.floor(x)));
        int cy = (int) Math.max(0, Math.min(nearness.height() - 1, Math.floor(y)));
        float[] around = new float[(2 * radius + 1) * (2 * radius + 1)];
        int count = 0;
        for (int py = Math.max(0, cy - radius); py <= Math.min(nearness.height() - 1, cy + radius); py++) {
            for (int px = Math.max(0, cx - radius); px <= Math.min(nearness.width() - 1, cx + radius); px++) {
                if ((px - cx) * (px - cx) + (py - cy) * (py - cy) <= radius * radius) {
                    around[count++] = nearness.at(px, py);
                }
            }
        }
        Arrays.sort(around, 0, count);
        return SharpBand.around(around[count / 2], SPOT_WIDTH, FALLOFF);
    }

    /** A band over what lies in a box (pixels of the nearness plane): from its 10th to its 90th percentile. */
    public static SharpBand patch(Plane nearness, double x, double y, double width, double height) {
        int x0 = (int) Math.max(0, Math.min(nearness.width() - 1, Math.floor(Math.min(x, x + width))));
        int y0 = (int) Math.max(0, Math.min(nearness.height() - 1, Math.floor(Math.min(y, y + height))));
        int x1 = (int) Math.max(x0 + 1, Math.min(nearness.width(), Math.ceil(Math.max(x, x + width))));
        int y1 = (int) Math.max(y0 + 1, Math.min(nearness.height(), Math.ceil(Math.max(y, y + height))));
        if ((long) (x1 - x0) * (y1 - y0) <= 4) {
            return spot(nearness, x, y);
        }
        float[] inside = new float[(x1 - x0) * (y1 - y0)];
        int count = 0;
        for (int py = y0; py < y1; py++) {
            for (int px = x0; px < x1; px++) {
                inside[count++] = nearness.at(px, py);
            }
        }
        Arrays.sort(inside);
        double far = inside[(int) (count * 0.1)];
        double near = inside[Math.min(count - 1, (int) (count * 0.9))];
        double margin = SPOT_WIDTH / 2;
        return SharpBand.around((near + far) / 2, near - far + 2 * margin, FALLOFF);
    }

    /**
     * The band of the likely main subject when no network names one: the nearness that holds most of the picture's
     * fine detail, weighted towards the centre and towards the camera.
     */
    private static SharpBand likely(Picture picture, Plane nearness) {
        var size = picture.size().fitting(WORKING_SIDE);
        Plane light = Resample.toSize(picture.lightness(), size);
        Plane near = Resample.pick(nearness, size);
        int bins = 64;
        double[] weight = new double[bins];
        for (int y = 1; y < size.height() - 1; y++) {
            for (int x = 1; x < size.width() - 1; x++) {
                double gx = light.at(x + 1, y) - light.at(x - 1, y);
                double gy = light.at(x, y + 1) - light.at(x, y - 1);
                double dx = (x + 0.5) / size.width() - 0.5;
                double dy = (y + 0.5) / size.height() - 0.52;
                double central = Math.exp(-(dx * dx + dy * dy) / (2 * 0.2 * 0.2));
                double n = Math.max(0, Math.min(1, near.at(x, y)));
                double detail = Math.min(0.3, Math.hypot(gx, gy)) + 0.01;
                weight[Math.min(bins - 1, (int) (n * bins))] += detail * central * (0.4 + n);
            }
        }
        int best = 0;
        double bestWeight = -1;
        for (int i = 0; i < bins; i++) {
            double sum = 0;
            for (int j = Math.max(0, i - 3); j <= Math.min(bins - 1, i + 3); j++) {
                sum += weight[j] * (4 - Math.abs(i - j));
            }
            if (sum > bestWeight) {
                bestWeight = sum;
                best = i;
            }
        }
        return SharpBand.around((best + 0.5) / bins, SUBJECT_WIDTH, FALLOFF);
    }
}
