package app.yubble.core.lens;

import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Region;
import org.jspecify.annotations.Nullable;

/** One tile of {@link LensRender}: its pixels and a margin around them, the layers cut from them, and the result. */
final class LensTile {
    // A level is reduced until its radius is at most this; at 8 px the disc's edge is still a sixteenth of its radius.
    private static final float MOST_RADIUS_ON_LEVEL = 8;
    private static final int MOST_LEVEL = Integer.numberOfTrailingZeros(LensRender.GRID);
    // Neighbours whose radii differ by more than this belong to two things, not to one slope.
    private static final float EDGE_STEP = 1.5f;
    private static final int CLEAN_REACH = 3;

    private final Disc disc;
    private final Region core;
    private final int originX;
    private final int originY;
    private final int width;
    private final int height;
    /** Red, green, blue (lifted) and signed radius, interleaved. */
    private final float[] pixels;

    private final float lowest;
    private final float highest;

    LensTile(Picture source, Plane radius, Disc disc, Glints glints, Region core, int margin) {
        this.disc = disc;
        this.core = core;
        int grid = LensRender.GRID;
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
        float low = Float.POSITIVE_INFINITY;
        float high = Float.NEGATIVE_INFINITY;
        for (int y = 0, to = 0; y < height; y++) {
            int row = mirrored(originY + y, source.height()) * source.width();
            for (int x = 0; x < width; x++, to += 4) {
                int from = row + columns[x];
                float blur = Math.max(-LensRender.MOST_RADIUS, Math.min(LensRender.MOST_RADIUS, s[from]));
                float lift = glints.factor(Math.max(r[from], Math.max(g[from], b[from])), Math.abs(blur));
                pixels[to] = r[from] * lift;
                pixels[to + 1] = g[from] * lift;
                pixels[to + 2] = b[from] * lift;
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
            write(pixels, 4, null, out, region);
            return;
        }
        cleanEdges();
        float[] behind = lowest < 0 ? withoutFront() : pixels;
        Layer result = focused(behind, far(behind));
        write(result.samples, Layer.CHANNELS, lowest < 0 ? near() : null, out, region);
    }

    private void write(float[] from, int stride, @Nullable Layer over, Picture out, Region region) {
        for (int y = 0; y < core.height(); y++) {
            int ty = core.y() + y - originY;
            int to = (core.y() + y - region.y()) * out.width() + core.x() - region.x();
            int tile = ty * width + core.x() - originX;
            for (int x = 0; x < core.width(); x++, to++, tile++) {
                int i = tile * stride;
                float r = from[i];
                float g = from[i + 1];
                float b = from[i + 2];
                if (over != null) {
                    int j = tile * Layer.CHANNELS;
                    float through = 1 - Math.min(1, over.samples[j + 3]);
                    r = over.samples[j] + through * r;
                    g = over.samples[j + 1] + through * g;
                    b = over.samples[j + 2] + through * b;
                }
                out.red().samples()[to] = r;
                out.green().samples()[to] = g;
                out.blue().samples()[to] = b;
            }
        }
    }

    // Step 1 of the package documentation: pixels on either side of a depth edge take their own side's colour.
    private void cleanEdges() {
        float[] cleaned = new float[3];
        float[] before = pixels.clone();
        for (int y = 1; y < height - 1; y++) {
            for (int x = 1; x < width - 1; x++) {
                int i = (y * width + x) * 4;
                float own = before[i + 3];
                if (Math.abs(own) > 1 && atEdge(before, x, y) && ownSide(before, x, y, cleaned)) {
                    pixels[i] = cleaned[0];
                    pixels[i + 1] = cleaned[1];
                    pixels[i + 2] = cleaned[2];
                }
            }
        }
    }

    private boolean atEdge(float[] from, int x, int y) {
        int i = (y * width + x) * 4 + 3;
        float own = from[i];
        float step = Math.max(EDGE_STEP, 0.15f * Math.abs(own));
        int row = width * 4;
        return Math.abs(from[i - 4] - own) > step
                || Math.abs(from[i + 4] - own) > step
                || Math.abs(from[i - row] - own) > step
                || Math.abs(from[i + row] - own) > step
                || Math.abs(from[i - row - 4] - own) > step
                || Math.abs(from[i - row + 4] - own) > step
                || Math.abs(from[i + row - 4] - own) > step
                || Math.abs(from[i + row + 4] - own) > step;
    }

    private boolean ownSide(float[] from, int cx, int cy, float[] mean) {
        float own = from[(cy * width + cx) * 4 + 3];
        float step = Math.max(EDGE_STEP, 0.15f * Math.abs(own));
        float weight = 0;
        mean[0] = mean[1] = mean[2] = 0;
        for (int y = Math.max(1, cy - CLEAN_REACH); y <= Math.min(height - 2, cy + CLEAN_REACH); y++) {
            for (int x = Math.max(1, cx - CLEAN_REACH); x <= Math.min(width - 2, cx + CLEAN_REACH); x++) {
                int i = (y * width + x) * 4;
                if (Math.abs(from[i + 3] - own) <= step && !atEdge(from, x, y)) {
                    float w = 1f / (1 + (x - cx) * (x - cx) + (y - cy) * (y - cy));
                    weight += w;
                    mean[0] += w * from[i];
                    mean[1] += w * from[i + 1];
                    mean[2] += w * from[i + 2];
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
        HoleFill.fill(behind, known, width, height, MOST_LEVEL);
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
        Steps steps = new Steps(from, 1, highest);
        Layer below = null;
        int belowLevel = 0;
        for (int k = steps.count() - 1; k >= 1; k--) {
            int level = levelOf(steps.radius(k));
            Layer layer = steps.blurredLayer(k, level, false);
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
        Steps steps = new Steps(pixels, -1, -lowest);
        Layer above = null;
        int aboveLevel = 0;
        for (int k = steps.count() - 1; k >= 1; k--) {
            int level = levelOf(steps.radius(k));
            Layer layer = steps.blurredLayer(k, level, true);
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
            for (int x = 1; x < width - 1; x++) {
                int i = y * width + x;
                float around =
                        sharp[i - width - 1] + sharp[i - width + 1] + sharp[i + width - 1] + sharp[i + width + 1];
                float beside = sharp[i - width] + sharp[i + width] + sharp[i - 1] + sharp[i + 1];
                float alpha = 0.25f * sharp[i] + 0.125f * beside + 0.0625f * around;
                int to = i * Layer.CHANNELS;
                float under = out.samples[to + 3];
                if (alpha >= 1 || under <= 0) {
                    out.samples[to] = from[i * 4];
                    out.samples[to + 1] = from[i * 4 + 1];
                    out.samples[to + 2] = from[i * 4 + 2];
                } else {
                    float share = (1 - alpha) / under;
                    out.samples[to] = alpha * from[i * 4] + share * out.samples[to];
                    out.samples[to + 1] = alpha * from[i * 4 + 1] + share * out.samples[to + 1];
                    out.samples[to + 2] = alpha * from[i * 4 + 2] + share * out.samples[to + 2];
                }
            }
        }
        return out;
    }

    private static int levelOf(float radius) {
        int level = 0;
        while (level < MOST_LEVEL && radius / (1 << level) > MOST_RADIUS_ON_LEVEL) {
            level++;
        }
        return level;
    }

    /** The tile cut into layers along the radius, on one side of the band. */
    private final class Steps {
        private final float[] from;
        private final float[] radii;
        /** Index of the step at or below each pixel's radius. */
        private final byte[] step;
        /** How far each pixel is on the way to the next step, in [0,1). */
        private final float[] toNext;
        /** For each row one bit for each step that occurs in it. */
        private final long[] stepsInRow;

        Steps(float[] from, int side, float largest) {
            this.from = from;
            this.radii = RadiusSteps.upTo(largest);
            step = new byte[width * height];
            toNext = new float[width * height];
            stepsInRow = new long[height];
            for (int y = 0; y < height; y++) {
                long seen = 0;
                for (int i = y * width; i < (y + 1) * width; i++) {
                    float radius = side * from[i * 4 + 3];
                    int j = 0;
                    if (radius > 0) {
                        j = Math.min(radii.length - 2, (int) Math.min(radius, 5));
                        while (j < radii.length - 2 && radii[j + 1] <= radius) {
                            j++;
                        }
                        toNext[i] = Math.min(1, (radius - radii[j]) / (radii[j + 1] - radii[j]));
                        seen |= 1L << j;
                    }
                    step[i] = (byte) j;
                }
                stepsInRow[y] = seen;
            }
        }

        int count() {
            return radii.length;
        }

        float radius(int k) {
            return radii[k];
        }

        /** Layer k on its level, blurred and normalised; null when no pixel belongs to it. */
        @Nullable
        Layer blurredLayer(int k, int level, boolean inFront) {
            // A pixel at step j belongs to the layers j and j + 1.
            long members = bits(k - 1, k);
            int first = 0;
            while (first < height && (stepsInRow[first] & members) == 0) {
                first++;
            }
            if (first == height) {
                return null;
            }
            int last = height - 1;
            while ((stepsInRow[last] & members) == 0) {
                last--;
            }
            Disc.Spans spans = disc.spans(radii[k] / (1 << level), inFront);
            int firstRow = Math.max(0, (first >> level) - spans.reach());
            int lastRow = Math.min((height >> level) - 1, (last >> level) + spans.reach());
            Layer layer = cut(
                    k,
                    level,
                    inFront,
                    Math.max(0, firstRow - spans.reach()),
                    Math.min((height >> level) - 1, lastRow + spans.reach()));
            Layer blurred = layer.blurred(spans, firstRow, lastRow);
            blurred.normalise();
            return blurred;
        }

        private static long bits(int from, int to) {
            long mask = 0;
            for (int i = Math.max(0, from); i <= to; i++) {
                mask |= 1L << i;
            }
            return mask;
        }

        private Layer cut(int k, int level, boolean inFront, int firstRow, int lastRow) {
            Layer layer = new Layer(width >> level, height >> level);
            float share = 1f / (1 << 2 * level);
            float[] to = layer.samples;
            for (int y = firstRow << level; y < (lastRow + 1) << level; y++) {
                int row = (y >> level) * layer.width;
                for (int x = 0, i = y * width; x < width; x++, i++) {
                    int j = step[i];
                    float t = toNext[i];
                    float shown = inFront ? shownInFront(k, j, t) : shownBehind(k, j, t);
                    if (shown > 0) {
                        float coverage = share * member(k, j, t);
                        int o = (row + (x >> level)) * Layer.CHANNELS;
                        to[o + 4] += share * shown;
                        if (coverage > 0) {
                            to[o] += coverage * from[i * 4];
                            to[o + 1] += coverage * from[i * 4 + 1];
                            to[o + 2] += coverage * from[i * 4 + 2];
                            to[o + 3] += coverage;
                        }
                    }
                }
            }
            return layer;
        }

        /** Share of a pixel (step j, t on the way to the next) that is in layer k. */
        private static float member(int k, int j, float t) {
            return k == j ? 1 - t : k == j + 1 ? t : 0;
        }

        /** Share of a pixel that is in layer k or behind it; nearer layers have the lower numbers behind the band. */
        private static float shownBehind(int k, int j, float t) {
            return k <= j ? 1 : k == j + 1 ? t : 0;
        }

        /** The same in front of the band, where nearer layers have the higher numbers. */
        private static float shownInFront(int k, int j, float t) {
            return k > j ? 1 : k == j ? 1 - t : 0;
        }
    }
}
