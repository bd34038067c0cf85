package app.yubble.core.raster;

/** A rectangle of pixels: x from {@code x} (inclusive) to {@code x + width} (exclusive), y likewise. */
public record Region(int x, int y, int width, int height) {
    public Region {
        if (width < 1 || height < 1) {
            throw new IllegalArgumentException("region must be at least 1x1, found " + width + "x" + height);
        }
    }

    public static Region all(Size size) {
        return new Region(0, 0, size.width(), size.height());
    }

    public Size size() {
        return new Size(width, height);
    }

    public boolean within(Size size) {
        return x >= 0 && y >= 0 && x + width <= size.width() && y + height <= size.height();
    }
}
