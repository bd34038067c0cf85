package app.yubble.core.lens;

import app.yubble.core.raster.Bands;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Region;
import java.util.Arrays;

/**
 * The pixels of one tile and its margin, by rows: colours with their glints, and signed blur radius. Cells beyond the
 * picture hold nothing; only the first {@link #inWidth} by {@link #inHeight} are of the picture.
 */
final class TilePixels {
    final int originX;
    final int originY;
    final int width;
    final int height;
    final int inWidth;
    final int inHeight;
    final float[][] red;
    final float[][] green;
    final float[][] blue;
    final float[][] radius;

    /** @param box in pixels of the picture; it may end beyond it */
    TilePixels(Picture source, Plane radii, Lift lift, Region box, Shelf shelf) {
        originX = box.x();
        originY = box.y();
        width = box.width();
        height = box.height();
        inWidth = Math.min(width, source.width() - originX);
        inHeight = Math.min(height, source.height() - originY);
        red = shelf.rows(width, height);
        green = shelf.rows(width, height);
        blue = shelf.rows(width, height);
        radius = shelf.rows(width, height);
        Bands.ofRows(height, (from, to) -> {
            float[] factor = new float[width];
            for (int y = from; y < to; y++) {
                for (float[][] each : new float[][][] {red, green, blue, radius}) {
                    Arrays.fill(each[y], y < inHeight ? inWidth : 0, width, 0);
                }
                if (y >= inHeight) {
                    continue;
                }
                int row = (originY + y) * source.width() + originX;
                System.arraycopy(source.red().samples(), row, red[y], 0, inWidth);
                System.arraycopy(source.green().samples(), row, green[y], 0, inWidth);
                System.arraycopy(source.blue().samples(), row, blue[y], 0, inWidth);
                System.arraycopy(radii.samples(), row, radius[y], 0, inWidth);
                lift.read(originX, originY + y, inWidth, factor);
                clamp(radius[y]);
                Glints.factors(factor, radius[y]);
                Sheet.multiplyRow(red[y], factor);
                Sheet.multiplyRow(green[y], factor);
                Sheet.multiplyRow(blue[y], factor);
            }
        });
    }

    private static void clamp(float[] radius) {
        for (int i = 0; i < radius.length; i++) {
            radius[i] = Math.max(-LensRender.MOST_RADIUS, Math.min(LensRender.MOST_RADIUS, radius[i]));
        }
    }
}
