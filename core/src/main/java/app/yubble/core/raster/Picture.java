package app.yubble.core.raster;

import java.util.List;

/** Three planes of equal size in linear light, in the primaries of the source; 1.0 is the source's white. */
public record Picture(Plane red, Plane green, Plane blue) {
    public Picture {
        if (!red.size().equals(green.size()) || !red.size().equals(blue.size())) {
            throw new IllegalArgumentException("the planes of a picture must have one size, found " + red.size() + ", "
                    + green.size() + ", " + blue.size());
        }
    }

    public static Picture blank(Size size) {
        return new Picture(new Plane(size), new Plane(size), new Plane(size));
    }

    public Picture copy() {
        return new Picture(red.copy(), green.copy(), blue.copy());
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
                float luminance = 0.2126f * r[i] + 0.7152f * g[i] + 0.0722f * b[i];
                l[i] = (float) Math.sqrt(Math.max(0, luminance));
            }
        });
        return out;
    }
}
