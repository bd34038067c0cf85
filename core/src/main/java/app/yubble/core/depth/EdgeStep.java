package app.yubble.core.depth;

import app.yubble.core.raster.Bands;
import app.yubble.core.raster.Enlarging;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Region;
import app.yubble.core.raster.Size;
import org.jspecify.annotations.Nullable;

/**
 * Enlarges a depth map along the picture: where a depth edge passes, each pixel of the larger picture goes to the side
 * whose pixels around it have its colour.
 *
 * <p>Joint bilateral upsampling (Kopf et al., SIGGRAPH 2007) with one departure: near an edge the weights vote for the
 * near or the far side and only the winner's depths are averaged, so no half-way depth arises. Away from edges it is
 * bilinear.
 */
final class EdgeStep {
    /** Cells to each side that a pixel may take its depth from: an edge of an enlarged map is off by no more. */
    private static final int REACH = 2;
    /** A smaller difference between neighbours is a slope, not an edge. */
    private static final float EDGE = 0.05f;

    /** Colour distance at which a neighbour counts e^-1/2 as much. By eye at 100 %. */
    private static final float COLOUR_SPREAD = 0.06f;
    /** What a neighbour counts by its distance, in quarters of a cell squared. */
    private static final float[] PLACE = new float[64];

    static {
        for (int i = 0; i < PLACE.length; i++) {
            PLACE[i] = (float) Math.exp(-i / 16.0 / 2 / (1.1 * 1.1));
        }
    }

    private final Plane nearness;
    private final boolean[] edges;
    private final float[][] colours;

    /** @param colours {@link #roots} of the picture at the size of {@code nearness} */
    EdgeStep(Plane nearness, float[][] colours) {
        this.nearness = nearness;
        this.colours = colours;
        edges = edges(nearness);
    }

    /** All of the nearness of the same picture at a larger size. */
    Plane enlarged(Picture large) {
        return enlarged(large, Region.all(large.size()), null, 0, 0);
    }

    /**
     * A part of the large picture's nearness, where edges are wanted; elsewhere it is bilinear.
     *
     * @param share of the part's size, says where it is wanted: between {@code least} and {@code most}; null for everywhere
     */
    Plane enlarged(Picture large, Region part, @Nullable Plane share, float least, float most) {
        if (nearness.size().equals(large.size()) && part.size().equals(large.size())) {
            return nearness;
        }
        Plane out = new Plane(part.size());
        Size size = large.size();
        Enlarging enlarging = new Enlarging(nearness.size(), size, part);
        float scale = (float) nearness.width() / size.width();
        float[] acrosses = new float[part.width()];
        int[] columns = new int[part.width()];
        for (int x = 0; x < columns.length; x++) {
            acrosses[x] = (part.x() + x + 0.5f) * scale - 0.5f;
            columns[x] = Math.max(0, Math.min(nearness.width() - 1, Math.round(acrosses[x])));
        }
        Bands.ofRows(part.height(), (from, to) -> {
            Vote vote = new Vote(nearness, colours);
            for (int y = from; y < to; y++) {
                enlarging.fill(nearness, enlarging.row(y), out.samples(), y * columns.length);
                float down = (part.y() + y + 0.5f) * nearness.height() / size.height() - 0.5f;
                int row = Math.max(0, Math.min(nearness.height() - 1, Math.round(down)));
                int inLarge = (part.y() + y) * size.width() + part.x();
                for (int x = 0, i = y * columns.length; x < columns.length; x++, i++) {
                    if (edges[row * nearness.width() + columns[x]]
                            && (share == null || share.samples()[i] >= least && share.samples()[i] <= most)) {
                        out.samples()[i] = vote.at(acrosses[x], down, columns[x], row, large, inLarge + x);
                    }
                }
            }
        });
        return out;
    }

    /** The colours of a picture as they are compared. */
    static float[][] roots(Picture picture) {
        float[][] out = new float[3][];
        for (int c = 0; c < 3; c++) {
            float[] samples = picture.planes().get(c).samples().clone();
            for (int i = 0; i < samples.length; i++) {
                samples[i] = (float) Math.sqrt(Math.max(0, samples[i]));
            }
            out[c] = samples;
        }
        return out;
    }

    /** Pixels with a jump within reach. */
    private static boolean[] edges(Plane nearness) {
        int width = nearness.width();
        int height = nearness.height();
        float[] z = nearness.samples();
        boolean[] jumps = new boolean[z.length];
        for (int y = 0; y < height; y++) {
            for (int x = 0; x < width; x++) {
                int i = y * width + x;
                boolean across = x + 1 < width && Math.abs(z[i + 1] - z[i]) > EDGE;
                boolean down = y + 1 < height && Math.abs(z[i + width] - z[i]) > EDGE;
                if (across || down) {
                    for (int dy = -1; dy <= 2; dy++) {
                        for (int dx = -1; dx <= 2; dx++) {
                            int px = x + dx;
                            int py = y + dy;
                            if (px >= 0 && px < width && py >= 0 && py < height) {
                                jumps[py * width + px] = true;
                            }
                        }
                    }
                }
            }
        }
        return jumps;
    }

    private static final class Vote {
        /** Of the window. */
        private static final int SIDE = 2 * REACH + 1;

        private final Plane nearness;
        private final float[][] colours;
        private final float[] depths = new float[SIDE * SIDE];
        private final float[] weights = new float[SIDE * SIDE];

        Vote(Plane nearness, float[][] colours) {
            this.nearness = nearness;
            this.colours = colours;
        }

        float at(float across, float down, int column, int row, Picture large, int i) {
            float r = (float) Math.sqrt(Math.max(0, large.red().samples()[i]));
            float g = (float) Math.sqrt(Math.max(0, large.green().samples()[i]));
            float b = (float) Math.sqrt(Math.max(0, large.blue().samples()[i]));
            int width = nearness.width();
            int count = 0;
            float low = Float.POSITIVE_INFINITY;
            float high = Float.NEGATIVE_INFINITY;
            for (int y = Math.max(0, row - REACH); y <= Math.min(nearness.height() - 1, row + REACH); y++) {
                for (int x = Math.max(0, column - REACH); x <= Math.min(width - 1, column + REACH); x++) {
                    int k = y * width + x;
                    float dr = colours[0][k] - r;
                    float dg = colours[1][k] - g;
                    float db = colours[2][k] - b;
                    float colour = (dr * dr + dg * dg + db * db) / (COLOUR_SPREAD * COLOUR_SPREAD);
                    float away = (x - across) * (x - across) + (y - down) * (y - down);
                    float z = nearness.samples()[k];
                    depths[count] = z;
                    weights[count++] = PLACE[Math.min(PLACE.length - 1, (int) (away * 4))] / (1 + colour * colour);
                    low = Math.min(low, z);
                    high = Math.max(high, z);
                }
            }
            return winner(count, 0.5f * (low + high));
        }

        private float winner(int count, float middle) {
            float nearWeight = 0;
            float nearSum = 0;
            float farWeight = 0;
            float farSum = 0;
            for (int k = 0; k < count; k++) {
                if (depths[k] > middle) {
                    nearWeight += weights[k];
                    nearSum += weights[k] * depths[k];
                } else {
                    farWeight += weights[k];
                    farSum += weights[k] * depths[k];
                }
            }
            return nearWeight > farWeight ? nearSum / nearWeight : farSum / farWeight;
        }
    }
}
