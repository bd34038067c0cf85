package app.yubble.core.raster;

/** Width and height in pixels, both at least 1. */
public record Size(int width, int height) {
    public Size {
        if (width < 1 || height < 1) {
            throw new IllegalArgumentException("size must be at least 1x1, found " + width + "x" + height);
        }
    }

    public long pixels() {
        return (long) width * height;
    }

    public int longSide() {
        return Math.max(width, height);
    }

    /** The largest size of the same shape whose longer side is at most {@code longSide}; never enlarges. */
    public Size fitting(int longSide) {
        if (longSide() <= longSide) {
            return this;
        }
        double scale = (double) longSide / longSide();
        return new Size(Math.max(1, (int) Math.round(width * scale)), Math.max(1, (int) Math.round(height * scale)));
    }

    /** True when both have the same aspect ratio, allowing each side to be rounded to whole pixels. */
    public boolean hasShapeOf(Size other) {
        double expectedHeight = (double) other.height * width / other.width;
        double expectedWidth = (double) other.width * height / other.height;
        return Math.abs(expectedHeight - height) <= Math.max(1.0, height * 0.005)
                || Math.abs(expectedWidth - width) <= Math.max(1.0, width * 0.005);
    }

    @Override
    public String toString() {
        return width + "x" + height;
    }
}
