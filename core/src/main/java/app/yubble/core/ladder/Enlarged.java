package app.yubble.core.ladder;

import app.yubble.core.raster.Bands;
import app.yubble.core.raster.Enlarging;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Region;

/**
 * Moves nearness of any size by a shift that is known at a small one: every pixel takes the shift of those around it that stand as far and
 * look like it (joint bilateral upsampling; Kopf et al., SIGGRAPH 2007). So the shift jumps at the very pixel at which nearness does.
 */
final class Enlarged {
    /** Cells to each side of the nearest one. */
    private static final int REACH = 1;
    /** What a cell counts that is nothing like the pixel: where none is, the nearest ones decide. */
    private static final float LEAST = 1e-4f;

    /** Of the shift among neighbours: a smaller difference is a slope, and needs no choice between them. */
    private static final float JUMP = 0.012f;

    private final Plane shift;
    private final Plane small;
    /** By cell, whether the shift jumps within reach. */
    private final boolean[] jumps;

    private final Likeness likeness;

    Enlarged(Plane shift, Footing footing) {
        this.shift = shift;
        small = footing.nearness();
        likeness = footing.likeness();
        jumps = jumps(shift);
    }

    private static boolean[] jumps(Plane shift) {
        int width = shift.width();
        boolean[] out = new boolean[shift.samples().length];
        for (int i = 0; i < out.length; i++) {
            int x = i % width;
            int y = i / width;
            float low = Float.POSITIVE_INFINITY;
            float high = Float.NEGATIVE_INFINITY;
            for (int py = Math.max(0, y - REACH); py <= Math.min(shift.height() - 1, y + REACH); py++) {
                for (int px = Math.max(0, x - REACH); px <= Math.min(width - 1, x + REACH); px++) {
                    low = Math.min(low, shift.samples()[py * width + px]);
                    high = Math.max(high, shift.samples()[py * width + px]);
                }
            }
            out[i] = high - low > JUMP;
        }
        return out;
    }

    /** A new plane with what {@code nearness} becomes; in [0,1]. */
    Plane move(Plane nearness, Picture picture) {
        Plane out = new Plane(nearness.size());
        int width = nearness.width();
        float acrossScale = (float) small.width() / width;
        float downScale = (float) small.height() / nearness.height();
        Enlarging enlarging = new Enlarging(small.size(), nearness.size(), Region.all(nearness.size()));
        int[] columns = new int[width];
        for (int x = 0; x < width; x++) {
            columns[x] = Math.max(0, Math.min(small.width() - 1, Math.round((x + 0.5f) * acrossScale - 0.5f)));
        }
        Bands.ofRows(nearness.height(), (from, to) -> {
            for (int y = from; y < to; y++) {
                float down = (y + 0.5f) * downScale - 0.5f;
                int row = Math.max(0, Math.min(small.height() - 1, Math.round(down))) * small.width();
                enlarging.fill(shift, enlarging.row(y), out.samples(), y * width);
                for (int x = 0, i = y * width; x < width; x++, i++) {
                    float by = jumps[row + columns[x]]
                            ? at((x + 0.5f) * acrossScale - 0.5f, down, i, nearness, picture)
                            : out.samples()[i];
                    out.samples()[i] = Math.max(0, Math.min(1, nearness.samples()[i] + by));
                }
            }
        });
        return out;
    }

    private float at(float across, float down, int i, Plane nearness, Picture picture) {
        float z = nearness.samples()[i];
        float r = Likeness.root(picture.red().samples()[i]);
        float g = Likeness.root(picture.green().samples()[i]);
        float b = Likeness.root(picture.blue().samples()[i]);
        int column = Math.round(across);
        int row = Math.round(down);
        float sum = 0;
        float weights = 0;
        for (int y = Math.max(0, row - REACH); y <= Math.min(small.height() - 1, row + REACH); y++) {
            float farDown = Math.max(0, 1.5f - Math.abs(y - down));
            for (int x = Math.max(0, column - REACH); x <= Math.min(small.width() - 1, column + REACH); x++) {
                int k = y * small.width() + x;
                float farAcross = Math.max(0, 1.5f - Math.abs(x - across));
                float weight = farDown * farDown * farAcross * farAcross * (likeness.of(k, z, r, g, b) + LEAST);
                sum += weight * shift.samples()[k];
                weights += weight;
            }
        }
        return sum / weights;
    }
}
