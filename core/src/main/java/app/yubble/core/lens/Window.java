package app.yubble.core.lens;

import app.yubble.core.raster.Region;

/**
 * The part of a tile whose result is wanted, in its own pixels or in the cells of a level. Around it lies only what is
 * blurred into it, and nothing is composed there.
 *
 * @param x1 exclusive, as is {@code y1}
 */
record Window(int x0, int y0, int x1, int y1) {
    /** Cells around it on every level: a cell is enlarged with those beside it. */
    private static final int BESIDE = 2;

    static Window of(Region core, TilePixels pixels) {
        int x = core.x() - pixels.originX;
        int y = core.y() - pixels.originY;
        return new Window(x, y, x + core.width(), y + core.height());
    }

    /** The cells of a sheet that it needs, of which it is told in pixels. */
    Window on(int level, int width, int height) {
        return new Window(
                Math.max(0, (x0 >> level) - BESIDE),
                Math.max(0, (y0 >> level) - BESIDE),
                Math.min(width, (x1 - 1 >> level) + BESIDE + 1),
                Math.min(height, (y1 - 1 >> level) + BESIDE + 1));
    }
}
