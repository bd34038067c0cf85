package app.yubble.core.raster;

/**
 * Changes the size of planes and pictures.
 *
 * <p>{@link #shrink} averages the exact area each output pixel covers; {@link #enlarge} is bilinear between pixel
 * centres, clamped at the border; {@link #pick} takes the sample under the centre, which is the only one of the three
 * that makes no new values and therefore the right one for nearness across an edge.
 */
public final class Resample {
    private Resample() {}

    /** Shrinks or enlarges to {@code size} by whichever of area averaging and bilinear fits each axis. */
    public static Picture toSize(Picture source, Size size) {
        return new Picture(toSize(source.red(), size), toSize(source.green(), size), toSize(source.blue(), size));
    }

    public static Plane toSize(Plane source, Size size) {
        if (source.size().equals(size)) {
            return source;
        }
        if (size.width() <= source.width() && size.height() <= source.height()) {
            return shrink(source, size);
        }
        return enlarge(source, size);
    }

    /** Area average; neither side may grow. Constant planes stay constant within float rounding. */
    public static Plane shrink(Plane source, Size size) {
        if (size.width() > source.width() || size.height() > source.height()) {
            throw new IllegalArgumentException("cannot shrink " + source.size() + " to " + size);
        }
        int sw = source.width();
        int sh = source.height();
        int dw = size.width();
        Plane out = new Plane(size);
        float[] in = source.samples();
        float[] to = out.samples();
        double stepX = (double) sw / dw;
        double stepY = (double) sh / size.height();
        int[] lasts = new int[dw];
        float[] firstShares = new float[dw];
        float[] lastShares = new float[dw];
        for (int x = 0; x < dw; x++) {
            double left = x * stepX;
            double right = Math.min(sw, left + stepX);
            int first = (int) left;
            lasts[x] = Math.min(sw - 1, (int) right);
            firstShares[x] = (float) (Math.min(right, first + 1) - left);
            lastShares[x] = lasts[x] > first ? (float) (right - lasts[x]) : 0;
        }
        Bands.ofRows(size.height(), (from, until) -> {
            float[] columnSums = new float[sw];
            for (int y = from; y < until; y++) {
                double top = y * stepY;
                double bottom = Math.min(sh, top + stepY);
                java.util.Arrays.fill(columnSums, 0);
                for (int sy = (int) top; sy < bottom; sy++) {
                    float share = (float) (Math.min(bottom, sy + 1) - Math.max(top, sy));
                    int row = sy * sw;
                    for (int x = 0; x < sw; x++) {
                        columnSums[x] += share * in[row + x];
                    }
                }
                float perArea = (float) (1 / (stepX * (bottom - top)));
                for (int x = 0; x < dw; x++) {
                    int last = lasts[x];
                    int first = (int) (x * stepX);
                    float sum = firstShares[x] * columnSums[first];
                    for (int sx = first + 1; sx < last; sx++) {
                        sum += columnSums[sx];
                    }
                    to[y * dw + x] = (sum + lastShares[x] * columnSums[last]) * perArea;
                }
            }
        });
        return out;
    }

    /** Bilinear between pixel centres, clamped at the border. */
    public static Plane enlarge(Plane source, Size size) {
        Enlarging enlarging = new Enlarging(source.size(), size);
        Plane out = new Plane(size);
        Bands.ofRows(size.height(), (from, until) -> {
            for (int y = from; y < until; y++) {
                enlarging.fill(source, enlarging.row(y), out.samples(), y * size.width());
            }
        });
        return out;
    }

    /** The sample under each new pixel's centre. */
    public static Plane pick(Plane source, Size size) {
        if (source.size().equals(size)) {
            return source;
        }
        int sw = source.width();
        int dw = size.width();
        Plane out = new Plane(size);
        float[] in = source.samples();
        float[] to = out.samples();
        Bands.ofRows(size.height(), (from, until) -> {
            for (int y = from; y < until; y++) {
                int row = Math.min(source.height() - 1, (int) ((y + 0.5) * source.height() / size.height())) * sw;
                for (int x = 0; x < dw; x++) {
                    to[y * dw + x] = in[row + Math.min(sw - 1, (int) ((x + 0.5) * sw / dw))];
                }
            }
        });
        return out;
    }

    /** A copy of the samples inside {@code region}. */
    public static Plane crop(Plane source, Region region) {
        if (!region.within(source.size())) {
            throw new IllegalArgumentException(region + " is not within " + source.size());
        }
        Plane out = new Plane(region.size());
        for (int y = 0; y < region.height(); y++) {
            System.arraycopy(
                    source.samples(),
                    (region.y() + y) * source.width() + region.x(),
                    out.samples(),
                    y * region.width(),
                    region.width());
        }
        return out;
    }

    public static Picture crop(Picture source, Region region) {
        return new Picture(crop(source.red(), region), crop(source.green(), region), crop(source.blue(), region));
    }

    /** Gives {@code onto} the samples of {@code source}, which has its size, within {@code region}. {@code onto} is modified. */
    public static void copy(Plane source, Plane onto, Region region) {
        for (int y = region.y(); y < region.y() + region.height(); y++) {
            int at = y * source.width() + region.x();
            System.arraycopy(source.samples(), at, onto.samples(), at, region.width());
        }
    }

    /** Puts all of {@code patch} into {@code onto}, its upper left corner at (x, y). In place. */
    public static void paste(Picture patch, Picture onto, int x, int y) {
        for (int c = 0; c < 3; c++) {
            float[] from = patch.planes().get(c).samples();
            float[] to = onto.planes().get(c).samples();
            for (int row = 0; row < patch.height(); row++) {
                System.arraycopy(from, row * patch.width(), to, (y + row) * onto.width() + x, patch.width());
            }
        }
    }
}
