package app.yubble.core.lens;

import app.yubble.core.raster.Bands;

/** Colours of a tile's pixels, or of cells of them, by rows. */
record Colours(float[][] red, float[][] green, float[][] blue) {
    /** From single pixels to cells of {@code 2^(levels - 1)} on a side, each twice as long as the one before. */
    static Colours[] byLevel(TilePixels pixels, int levels, Shelf shelf) {
        Colours[] all = new Colours[levels];
        all[0] = new Colours(pixels.red, pixels.green, pixels.blue);
        for (int level = 1; level < levels; level++) {
            all[level] = all[level - 1].halved(shelf);
        }
        return all;
    }

    private Colours halved(Shelf shelf) {
        return new Colours(halved(red, shelf), halved(green, shelf), halved(blue, shelf));
    }

    private static float[][] halved(float[][] rows, Shelf shelf) {
        int width = rows[0].length / 2;
        float[][] out = shelf.rows(width, rows.length / 2);
        Bands.ofRows(out.length, (from, to) -> {
            float[] both = new float[2 * width];
            for (int y = from; y < to; y++) {
                add(rows[2 * y], rows[2 * y + 1], both);
                halve(both, out[y]);
            }
        });
        return out;
    }

    private static void add(float[] a, float[] b, float[] sum) {
        for (int i = 0; i < sum.length; i++) {
            sum[i] = a[i] + b[i];
        }
    }

    private static void halve(float[] from, float[] to) {
        for (int i = 0; i < to.length; i++) {
            to[i] = 0.25f * (from[2 * i] + from[2 * i + 1]);
        }
    }

    void giveBack(Shelf shelf) {
        shelf.takeBack(red);
        shelf.takeBack(green);
        shelf.takeBack(blue);
    }
}
