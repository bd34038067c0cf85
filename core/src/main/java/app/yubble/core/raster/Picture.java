package app.yubble.core.raster;

import java.util.Arrays;
import java.util.List;
import java.util.function.IntFunction;
import org.jspecify.annotations.Nullable;

/** Three planes of equal size in linear light, in the primaries of the source; 1.0 is the source's white. */
public record Picture(Plane red, Plane green, Plane blue) {
    /** In pixels; below it work is not worth being shared. */
    private static final long LARGE = 2_000_000;

    public Picture {
        if (!red.size().equals(green.size()) || !red.size().equals(blue.size())) {
            throw new IllegalArgumentException("the planes of a picture must have one size, found " + red.size() + ", "
                    + green.size() + ", " + blue.size());
        }
    }

    public static Picture blank(Size size) {
        return of(size, channel -> new Plane(size));
    }

    public Picture copy() {
        return of(size(), channel -> planes().get(channel).copy());
    }

    /** Fresh memory is cleared as it is taken: of a large picture that is a tenth of a second, on one core. */
    private static Picture of(Size size, IntFunction<Plane> plane) {
        if (size.pixels() < LARGE) {
            return new Picture(plane.apply(0), plane.apply(1), plane.apply(2));
        }
        Plane[] planes = new Plane[3];
        Bands.ofPieces(planes.length, channel -> planes[channel] = plane.apply(channel));
        return new Picture(planes[0], planes[1], planes[2]);
    }

    public Size size() {
        return red.size();
    }

    public int width() {
        return red.width();
    }

    public int height() {
        return red.height();
    }

    public List<Plane> planes() {
        return List.of(red, green, blue);
    }

    /** Around all that differs between two pictures of one size; null when nothing does. */
    public static @Nullable Region difference(Picture a, Picture b) {
        Region around = null;
        for (int c = 0; c < 3; c++) {
            float[] own = a.planes().get(c).samples();
            float[] other = b.planes().get(c).samples();
            if (own == other) {
                continue;
            }
            for (int y = 0, row = 0; y < a.height(); y++, row += a.width()) {
                int end = row + a.width();
                int first = Arrays.mismatch(own, row, end, other, row, end);
                if (first >= 0) {
                    int last = end - 1;
                    while (own[last] == other[last]) {
                        last--;
                    }
                    around = Region.around(around, new Region(first, y, last - row - first + 1, 1));
                }
            }
        }
        return around;
    }

    /** Bytes held by the samples. */
    public long bytes() {
        return size().pixels() * 3 * Float.BYTES;
    }

    /**
     * Perceptual lightness of each pixel: the square root of luminance (weights of ITU-R BT.709), in [0,1] for
     * samples in [0,1]. A guide for filters that should see edges as an eye does; not a colour measure.
     */
    public Plane lightness() {
        Plane out = new Plane(size());
        float[] r = red.samples();
        float[] g = green.samples();
        float[] b = blue.samples();
        float[] l = out.samples();
        int width = width();
        Bands.ofRows(height(), (from, to) -> {
            for (int i = from * width; i < to * width; i++) {
                float luminance = Luminance.RED * r[i] + Luminance.GREEN * g[i] + Luminance.BLUE * b[i];
                l[i] = (float) Math.sqrt(Math.max(0, luminance));
            }
        });
        return out;
    }
}
