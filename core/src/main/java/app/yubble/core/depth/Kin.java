package app.yubble.core.depth;

import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Resample;
import app.yubble.core.raster.Size;

/**
 * What each place of a picture is like, as a network sees it: leaves, sky, the same wall go together wherever they are and
 * however they are lit.
 *
 * @param tiles {@value #PARTS} squares in [0,1], one below the other; each is stretched over the picture
 */
public record Kin(Plane tiles) {
    /** Numbers by which places differ. */
    public static final int PARTS = 12;

    /** Between two places drawn at random the distance of their numbers is about one over this. */
    public static final double REACH = 3;

    /** Of the tiles. */
    public static final Size SHAPE = new Size(100, 100 * PARTS);

    public Kin {
        if (tiles.height() != PARTS * tiles.width()) {
            throw new IllegalArgumentException("kin has " + PARTS + " squares, not " + tiles.size());
        }
    }

    public long bytes() {
        return tiles.bytes();
    }

    /** One of the numbers at every place. */
    public Plane part(int which, Size size) {
        int side = tiles.width();
        Plane tile = new Plane(side, side);
        System.arraycopy(tiles.samples(), which * side * side, tile.samples(), 0, side * side);
        return Resample.toSize(tile, size);
    }
}
