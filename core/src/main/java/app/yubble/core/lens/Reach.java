package app.yubble.core.lens;

import app.yubble.core.raster.Bands;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Region;

/** How far blur reaches into a tile from outside: most tiles need much less margin than the largest radius. */
final class Reach {
    private static final int BLOCK = 32;

    private final float[] largest;
    private final int across;
    private final int down;
    private final float overall;

    /** Finds the largest radius in each block, and refuses what is no number. */
    Reach(Plane radius) {
        across = (radius.width() + BLOCK - 1) / BLOCK;
        down = (radius.height() + BLOCK - 1) / BLOCK;
        largest = new float[across * down];
        Bands.ofRows(down, (from, to) -> {
            for (int y = from * BLOCK; y < Math.min(radius.height(), to * BLOCK); y++) {
                for (int x = 0; x < radius.width(); x++) {
                    float r = Math.abs(radius.samples()[y * radius.width() + x]);
                    if (!(r < 1e6f)) {
                        throw new IllegalArgumentException(
                                "blur radius must be a number below a million pixels, found " + r);
                    }
                    int block = y / BLOCK * across + x / BLOCK;
                    largest[block] = Math.max(largest[block], Math.min(r, LensRender.MOST_RADIUS));
                }
            }
        });
        float most = 0;
        for (float each : largest) {
            most = Math.max(most, each);
        }
        overall = most;
    }

    float overall() {
        return overall;
    }

    /** Pixels of margin that {@code tile} needs: a block counts as far as its radius, when that reaches the tile. */
    int into(Region tile) {
        double margin = 0;
        for (int by = 0; by < down; by++) {
            double dy = Math.max(0, Math.max(tile.y() - (by + 1) * BLOCK, by * BLOCK - tile.y() - tile.height()));
            for (int bx = 0; bx < across; bx++) {
                double reach = largest[by * across + bx] * Disc.MOST_EDGE + 3;
                double dx = Math.max(0, Math.max(tile.x() - (bx + 1) * BLOCK, bx * BLOCK - tile.x() - tile.width()));
                if (reach > margin && reach >= Math.max(dx, dy)) {
                    margin = reach;
                }
            }
        }
        return (int) Math.ceil(margin);
    }
}
