package app.yubble.core.lens;

import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Region;
import org.jspecify.annotations.Nullable;

/** One tile of {@link LensRender}: its pixels and a margin around them, the layers cut from them, and the result. */
final class LensTile {
    // Up to 3 px a disc has no shape to lose and the full level costs most; beyond, a level is reduced until its radius
    // is at most 5: half the columns of 8; a disc's edge is then soft by about a pixel of its level.
    private static final float MOST_RADIUS_AT_FULL_SIZE = 3;
    private static final float MOST_RADIUS_ON_LEVEL = 5;
    // Neighbours whose radii differ by more than this belong to two things, not to one slope.
    private static final float EDGE_STEP = 1.5f;
    private static final int CLEAN_REACH = 3;

    private final Disc disc;
    private final LensRender.TilePlan plan;
    private final Region core;
    private final int originX;
    private final int originY;
    private final int width;
    private final int height;
    /** Red, green, blue (lifted) and signed radius, interleaved. */
    private final float[] pixels;

    private final float lowest;
    private final float highest;

    LensTile(Picture source, Plane radius, Disc disc, Plane lift, Region core, LensRender.TilePlan plan, int margin) {
        this.disc = disc;
        this.plan = plan;
        this.core = core;
        int grid = plan.grid();
        originX = Math.floorDiv(core.x(), grid) * grid - margin;
        originY = Math.floorDiv(core.y(), grid) * grid - margin;
        width = (core.x() + core.width() + margin - originX + grid - 1) / grid * grid;
        height = (core.y() + core.height() + margin - originY + grid - 1) / grid * grid;
        pixels = new float[width * height * 4];
        int[] columns = new int[width];
        for (int x = 0; x < width; x++) {
            columns[x] = mirrored(originX + x, source.width());
        }
        float[] r = source.red().samples();
        float[] g = source.green().samples();
        float[] b = source.blue().samples();
        float[] s = radius.samples();
        float[] lifts = lift.samples();
        float low = Float.POSITIVE_INFINITY;
        float high = Float.NEGATIVE_INFINITY;
        for (int y = 0, to = 0; y < height; y++) {
            int row = mirrored(originY + y, source.height()) * source.width();
            for (int x = 0; x < width; x++, to += 4) {
                int from = row + columns[x];
                float blur = Math.max(-LensRender.MOST_RADIUS, Math.min(LensRender.MOST_RADIUS, s[from]));
                float factor = lifts[from] == 0 ? 1 : Glints.factor(lifts[from], Math.abs(blur));
                pixels[to] = r[from] * factor;
                pixels[to + 1] = g[from] * factor;
                pixels[to + 2] = b[from] * factor;
                pixels[to + 3] = blur;
                low = Math.min(low, blur);
                high = Math.max(high, blur);
            }
        }
        lowest = low;
        highest = high;
    }

    private static int mirrored(int at, int size) {
        int within = Math.floorMod(at, 2 * size);
        return within < size ? within : 2 * size - 1 - within;
    }

    void renderInto(Picture out, Region region) {
        if (lowest == 0 && highest == 0) {
            writeSource(out, region);
            return;
        }
        cleanEdges();
        float[] behind = lowest < 0 ? withoutFront() : pixels;
        Layer result = focused(behind, far(behind));
        if (lowest < 0) {
            Layer front = near();
            if (front != null) {
                result.under(front);
            }
        }
        write(result, out, region);
    }

    private void write(Layer from, Picture out, Region region) {
        for (int y = 0; y < core.height(); y++) {
            int to = (core.y() + y - region.y()) * out.width() + core.x() - region.x();
            for (int c = 0; c < 3; c++) {
                float[] row = from.rows[c][core.y() + y - originY];
                System.arraycopy(row, core.x() - originX, out.planes().get(c).samples(), to, core.width());
            }
        }
    }

    private void writeSource(Picture out, Region region) {
        for (int y = 0; y < core.height(); y++) {
            int to = (core.y() + y - region.y()) * out.width() + core.x() - region.x();
            int from = ((core.y() + y - originY) * width + core.x() - originX) * 4;
            for (int x = 0; x < core.width(); x++, to++, from += 4) {
                out.red().samples()[to] = pixels[from];
                out.green().samples()[to] = pixels[from + 1];
                out.blue().samples()[to] = pixels[from + 2];
            }
        }
    }

    // Step 1 of the package documentation: pixels on either side of a depth edge take their own side's colour.
    private void cleanEdges() {
        byte[] edge = new byte[width * height];
        int found = 0;
        for (int y = 1; y < height - 1; y++) {
            for (int x = 1; x < width - 1; x++) {
                int i = y * width + x;
                if (atEdge(i)) {
                    edge[i] = 1;
                    found++;
                }
            }
        }
        if (found == 0) {
            return;
        }
        float[] before = pixels.clone();
        float[] mean = new float[3];
        for (int y = 1; y < height - 1; y++) {
            for (int x = 1; x < width - 1; x++) {
                int i = y * width + x;
                if (edge[i] != 0 && Math.abs(before[i * 4 + 3]) > 1 && ownSide(before, edge, x, y, mean)) {
                    System.arraycopy(mean, 0, pixels, i * 4, 3);
                }
            }
        }
    }

    private static float tolerance(float radius) {
        return Math.max(EDGE_STEP, 0.15f * Math.abs(radius));
    }

    private boolean atEdge(int pixel) {
        int i = pixel * 4 + 3;
        float own = pixels[i];
        float step = tolerance(own);
        int row = width * 4;
        return Math.abs(pixels[i - 4] - own) > step
                || Math.abs(pixels[i + 4] - own) > step
                || Math.abs(pixels[i - row] - own) > step
                || Math.abs(pixels[i + row] - own) > step
                || Math.abs(pixels[i - row - 4] - own) > step
                || Math.abs(pixels[i - row + 4] - own) > step
                || Math.abs(pixels[i + row - 4] - own) > step
                || Math.abs(pixels[i + row + 4] - own) > step;
    }

    private boolean ownSide(float[] from, byte[] edge, int cx, int cy, float[] mean) {
        float own = from[(cy * width + cx) * 4 + 3];
        float step = tolerance(own);
        float weight = 0;
        mean[0] = mean[1] = mean[2] = 0;
        for (int y = Math.max(1, cy - CLEAN_REACH); y <= Math.min(height - 2, cy + CLEAN_REACH); y++) {
            for (int x = Math.max(1, cx - CLEAN_REACH); x <= Math.min(width - 2, cx + CLEAN_REACH); x++) {
                int i = y * width + x;
                if (edge[i] == 0 && Math.abs(from[i * 4 + 3] - own) <= step) {
                    float w = 1f / (1 + (x - cx) * (x - cx) + (y - cy) * (y - cy));
                    weight += w;
                    mean[0] += w * from[i * 4];
                    mean[1] += w * from[i * 4 + 1];
                    mean[2] += w * from[i * 4 + 2];
                }
            }
        }
        if (weight == 0) {
            return false;
        }
        mean[0] /= weight;
        mean[1] /= weight;
        mean[2] /= weight;
        return true;
    }

    // Step 2: the picture without what stands in front of the band.
    private float[] withoutFront() {
        float[] behind = pixels.clone();
        float[] known = new float[width * height];
        for (int i = 0; i < known.length; i++) {
            known[i] = behind[i * 4 + 3] < -1 ? 0 : 1;
        }
        HoleFill.fill(behind, known, width, height, Integer.numberOfTrailingZeros(plan.grid()));
        for (int i = 3; i < behind.length; i += 4) {
            behind[i] = Math.max(0, behind[i]);
        }
        return behind;
    }

    // Step 3: what lies behind the band, back to front.
    private @Nullable Layer far(float[] from) {
        if (highest <= 0) {
            return null;
        }
        LayerCut cut = new LayerCut(from, width, height, 1, plan.largest());
        Layer below = null;
        int belowLevel = 0;
        for (int k = cut.count() - 1; k >= 1; k--) {
            int level = levelOf(cut.radius(k));
            Layer layer = cut.blurredLayer(k, level, disc);
            if (layer == null) {
                continue;
            }
            if (below == null) {
                below = layer;
            } else {
                for (; belowLevel > level; belowLevel--) {
                    below = below.doubled();
                }
                below.under(layer);
            }
            belowLevel = level;
        }
        for (; below != null && belowLevel > 0; belowLevel--) {
            below = below.doubled();
        }
        return below;
    }

    // Step 4: what stands in front, premultiplied.
    private @Nullable Layer near() {
        LayerCut cut = new LayerCut(pixels, width, height, -1, plan.largest());
        Layer above = null;
        int aboveLevel = 0;
        for (int k = cut.count() - 1; k >= 1; k--) {
            int level = levelOf(cut.radius(k));
            Layer layer = cut.blurredLayer(k, level, disc);
            if (layer == null) {
                continue;
            }
            if (above != null) {
                for (; aboveLevel > level; aboveLevel--) {
                    above = above.doubled();
                }
                layer.under(above);
            }
            above = layer;
            aboveLevel = level;
        }
        for (; above != null && aboveLevel > 0; aboveLevel--) {
            above = above.doubled();
        }
        return above;
    }

    // The sharp band itself, over what lies behind it. Its coverage is softened by a pixel so that edges stay smooth.
    private Layer focused(float[] from, @Nullable Layer below) {
        Layer out = below == null ? new Layer(width, height) : below;
        float[] sharp = new float[width * height];
        for (int i = 0; i < sharp.length; i++) {
            sharp[i] = Math.max(0, 1 - Math.max(0, from[i * 4 + 3]));
        }
        for (int y = 1; y < height - 1; y++) {
            float[] r = out.rows[0][y];
            float[] g = out.rows[1][y];
            float[] b = out.rows[2][y];
            float[] covered = out.rows[Layer.COVERAGE][y];
            for (int x = 1; x < width - 1; x++) {
                int i = y * width + x;
                float around =
                        sharp[i - width - 1] + sharp[i - width + 1] + sharp[i + width - 1] + sharp[i + width + 1];
                float beside = sharp[i - width] + sharp[i + width] + sharp[i - 1] + sharp[i + 1];
                float alpha = 0.25f * sharp[i] + 0.125f * beside + 0.0625f * around;
                if (alpha >= 1 || covered[x] <= 0) {
                    r[x] = from[i * 4];
                    g[x] = from[i * 4 + 1];
                    b[x] = from[i * 4 + 2];
                } else {
                    float share = (1 - alpha) / covered[x];
                    r[x] = alpha * from[i * 4] + share * r[x];
                    g[x] = alpha * from[i * 4 + 1] + share * g[x];
                    b[x] = alpha * from[i * 4 + 2] + share * b[x];
                }
                covered[x] = 1;
            }
        }
        return out;
    }

    private int levelOf(float radius) {
        if (radius <= MOST_RADIUS_AT_FULL_SIZE) {
            return 0;
        }
        int most = Integer.numberOfTrailingZeros(plan.grid());
        int level = 1;
        while (level < most && radius / (1 << level) > MOST_RADIUS_ON_LEVEL) {
            level++;
        }
        return level;
    }
}
