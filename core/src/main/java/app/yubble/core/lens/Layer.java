package app.yubble.core.lens;

import java.util.Arrays;

/**
 * Premultiplied red, green, blue, coverage, and what is not nearer, interleaved, on one level of a tile.
 *
 * <p>The fifth value is the share of the pixel that shows this layer or something behind it: what stands in front hides
 * an unknown background, so a blurred layer is divided by it ({@link #normalise}).
 *
 * <p>Interleaved because they are always blurred and composed together: one pass over one array.
 */
final class Layer {
    static final int CHANNELS = 5;
    private static final int COVERAGE = 3;
    private static final int NOT_NEARER = 4;
    // Below this share of the disc the hidden background is a guess from too few pixels: let it fade out.
    private static final float LEAST_SHOWN = 0.01f;

    final int width;
    final int height;
    final float[] samples;

    Layer(int width, int height) {
        this.width = width;
        this.height = height;
        this.samples = new float[width * height * CHANNELS];
    }

    /** Bilinear, twice the size. */
    Layer doubled() {
        Layer out = new Layer(width * 2, height * 2);
        int stride = width * CHANNELS;
        float[] mixed = new float[stride];
        for (int y = 0; y < out.height; y++) {
            // A fine row lies a quarter of a coarse pixel off the centre of its own coarse row.
            int own = y / 2;
            int other = Math.max(0, Math.min(height - 1, own + ((y & 1) == 0 ? -1 : 1)));
            for (int i = 0; i < stride; i++) {
                mixed[i] = 0.75f * samples[own * stride + i] + 0.25f * samples[other * stride + i];
            }
            int to = y * out.width * CHANNELS;
            for (int x = 0; x < width; x++) {
                int here = x * CHANNELS;
                int before = Math.max(0, x - 1) * CHANNELS;
                int after = Math.min(width - 1, x + 1) * CHANNELS;
                for (int c = 0; c < CHANNELS; c++) {
                    float quarter = 0.75f * mixed[here + c];
                    out.samples[to++] = quarter + 0.25f * mixed[before + c];
                }
                for (int c = 0; c < CHANNELS; c++) {
                    float quarter = 0.75f * mixed[here + c];
                    out.samples[to++] = quarter + 0.25f * mixed[after + c];
                }
            }
        }
        return out;
    }

    /** Lays {@code upper} (premultiplied) over this. */
    void under(Layer upper) {
        float[] up = upper.samples;
        for (int i = 0; i < samples.length; i += CHANNELS) {
            float through = 1 - Math.min(1, up[i + COVERAGE]);
            samples[i] = up[i] + through * samples[i];
            samples[i + 1] = up[i + 1] + through * samples[i + 1];
            samples[i + 2] = up[i + 2] + through * samples[i + 2];
            samples[i + COVERAGE] = up[i + COVERAGE] + through * samples[i + COVERAGE];
        }
    }

    /** Divides by what is not nearer, so that the layer goes on under everything in front of it. In place. */
    void normalise() {
        for (int i = 0; i < samples.length; i += CHANNELS) {
            float shown = samples[i + NOT_NEARER];
            float scale = shown <= 1e-5f ? 0 : Math.min(1, shown / LEAST_SHOWN) / shown;
            samples[i] *= scale;
            samples[i + 1] *= scale;
            samples[i + 2] *= scale;
            samples[i + COVERAGE] *= scale;
        }
    }

    /** Convolution with a disc. Beyond the tile there is nothing; the margin is wide enough that it never shows. */
    Layer blurred(Disc.Spans spans, int firstRow, int lastRow) {
        Layer out = new Layer(width, height);
        int reach = spans.reach();
        int pad = reach + 1;
        int stride = width * CHANNELS;
        int summed = (width + 1 + 2 * pad) * CHANNELS;
        float[][] sums = new float[2 * reach + 1][summed];
        int filled = Math.max(0, firstRow - reach);
        float perArea = 1 / spans.area();
        for (int y = Math.max(0, firstRow); y <= Math.min(height - 1, lastRow); y++) {
            for (; filled <= Math.min(height - 1, y + reach); filled++) {
                runningSums(filled, pad, sums[filled % sums.length]);
            }
            int to = y * stride;
            for (int dy = -reach; dy <= reach; dy++) {
                if (y + dy < 0 || y + dy >= height) {
                    continue;
                }
                float left = spans.left()[dy + reach];
                float right = spans.right()[dy + reach];
                if (right > left) {
                    addSpan(sums[(y + dy) % sums.length], pad, left + 0.5f, right + 0.5f, out.samples, to, stride);
                }
            }
            for (int i = to; i < to + stride; i++) {
                out.samples[i] *= perArea;
            }
        }
        return out;
    }

    private void runningSums(int row, int pad, float[] sums) {
        int from = row * width * CHANNELS;
        int to = pad * CHANNELS;
        Arrays.fill(sums, 0, to + CHANNELS, 0);
        float r = 0;
        float g = 0;
        float b = 0;
        float a = 0;
        float v = 0;
        for (int x = 0; x < width; x++, from += CHANNELS) {
            to += CHANNELS;
            sums[to] = r += samples[from];
            sums[to + 1] = g += samples[from + 1];
            sums[to + 2] = b += samples[from + 2];
            sums[to + 3] = a += samples[from + 3];
            sums[to + 4] = v += samples[from + 4];
        }
        for (int x = 0; x < pad; x++) {
            to += CHANNELS;
            sums[to] = r;
            sums[to + 1] = g;
            sums[to + 2] = b;
            sums[to + 3] = a;
            sums[to + 4] = v;
        }
    }

    // The integral of the row from x + left to x + right, where the running sum is read between pixels linearly.
    private static void addSpan(float[] sums, int pad, float left, float right, float[] out, int to, int count) {
        int leftPixel = (int) Math.floor(left);
        int rightPixel = (int) Math.floor(right);
        float l1 = left - leftPixel;
        float l0 = 1 - l1;
        float r1 = right - rightPixel;
        float r0 = 1 - r1;
        int l = (pad + leftPixel) * CHANNELS;
        int r = (pad + rightPixel) * CHANNELS;
        for (int i = 0; i < count; i++) {
            out[to + i] +=
                    r0 * sums[r + i] + r1 * sums[r + CHANNELS + i] - l0 * sums[l + i] - l1 * sums[l + CHANNELS + i];
        }
    }
}
