package app.yubble.core.follow;

import app.yubble.core.raster.Region;
import app.yubble.core.raster.Size;

/**
 * The brightness of a frame as it is stored, 0 black to 255 white, row after row.
 *
 * @param samples not copied; nobody writes to them
 */
@SuppressWarnings("ArrayRecordComponent")
public record GreyFrame(Size size, byte[] samples) {
    public GreyFrame {
        if (samples.length != size.pixels()) {
            throw new IllegalArgumentException(size + " has " + size.pixels() + " samples, found " + samples.length);
        }
    }

    boolean holds(double x, double y) {
        return x >= 0 && y >= 0 && x <= size.width() - 1 && y <= size.height() - 1;
    }

    /** Between the middles of pixels; beyond the border that of the border. */
    float at(double x, double y) {
        int width = size.width();
        int height = size.height();
        double px = Math.max(0, Math.min(width - 1, x));
        double py = Math.max(0, Math.min(height - 1, y));
        int left = Math.min((int) px, Math.max(0, width - 2));
        int top = Math.min((int) py, Math.max(0, height - 2));
        float fx = (float) (px - left);
        float fy = (float) (py - top);
        int right = Math.min(left + 1, width - 1);
        int above = top * width;
        int below = Math.min(top + 1, height - 1) * width;
        float a = samples[above + left] & 0xff;
        float b = samples[above + right] & 0xff;
        float c = samples[below + left] & 0xff;
        float d = samples[below + right] & 0xff;
        float upper = a + fx * (b - a);
        return upper + fy * (c + fx * (d - c) - upper);
    }

    GreyFrame crop(Region part) {
        byte[] out = new byte[(int) part.size().pixels()];
        for (int y = 0; y < part.height(); y++) {
            System.arraycopy(samples, (part.y() + y) * size.width() + part.x(), out, y * part.width(), part.width());
        }
        return new GreyFrame(part.size(), out);
    }

    /** Half as wide and high: each pixel the mean of four. An odd last row or column is left out. */
    GreyFrame halved() {
        int width = Math.max(1, size.width() / 2);
        int height = Math.max(1, size.height() / 2);
        byte[] out = new byte[width * height];
        int right = size.width() > 1 ? 1 : 0;
        int below = size.height() > 1 ? size.width() : 0;
        for (int y = 0; y < height; y++) {
            int at = 2 * y * size.width();
            for (int x = 0; x < width; x++, at += 2) {
                int sum = (samples[at] & 0xff)
                        + (samples[at + right] & 0xff)
                        + (samples[at + below] & 0xff)
                        + (samples[at + below + right] & 0xff);
                out[y * width + x] = (byte) ((sum + 2) / 4);
            }
        }
        return new GreyFrame(new Size(width, height), out);
    }
}
