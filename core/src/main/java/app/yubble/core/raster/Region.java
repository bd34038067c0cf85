package app.yubble.core.raster;

import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;

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

    /** The same with {@code more} pixels around it, cut at the picture's edge. */
    public Region grown(int more, Size picture) {
        int left = Math.max(0, x - more);
        int top = Math.max(0, y - more);
        return new Region(
                left,
                top,
                Math.min(picture.width(), x + width + more) - left,
                Math.min(picture.height(), y + height + more) - top);
    }

    /**
     * The same place when the picture, or a part of it that begins at its own 0, has another size; never empty and within
     * {@code size}, also at the far edge, where rounding would leave nothing.
     *
     * @param across factor on x
     * @param down factor on y
     */
    public Region scaled(double across, double down, Size size) {
        int left = Math.max(0, Math.min(size.width() - 1, (int) Math.round(x * across)));
        int top = Math.max(0, Math.min(size.height() - 1, (int) Math.round(y * down)));
        int right = Math.min(size.width(), (int) Math.round((x + width) * across));
        int bottom = Math.min(size.height(), (int) Math.round((y + height) * down));
        return new Region(left, top, Math.max(1, right - left), Math.max(1, bottom - top));
    }

    /** The same place counted from another one. */
    public Region from(Region origin) {
        return new Region(x - origin.x, y - origin.y, width, height);
    }

    /** The smallest that holds both; one of them may be null for none. */
    public static @Nullable Region around(@Nullable Region a, @Nullable Region b) {
        return a == null || b == null ? a == null ? b : a : a.joined(b);
    }

    /** The smallest that holds both. */
    public Region joined(Region other) {
        int left = Math.min(x, other.x);
        int top = Math.min(y, other.y);
        return new Region(
                left,
                top,
                Math.max(x + width, other.x + other.width) - left,
                Math.max(y + height, other.y + other.height) - top);
    }

    /** What both have in common; null when that is nothing. */
    public @Nullable Region meet(Region other) {
        int left = Math.max(x, other.x);
        int top = Math.max(y, other.y);
        int right = Math.min(x + width, other.x + other.width);
        int bottom = Math.min(y + height, other.y + other.height);
        return left < right && top < bottom ? new Region(left, top, right - left, bottom - top) : null;
    }

    /** What of this one lies outside another one, in at most four pieces. */
    public List<Region> without(Region other) {
        Region both = meet(other);
        if (both == null) {
            return List.of(this);
        }
        List<Region> out = new ArrayList<>();
        addPiece(out, x, y, x + width, both.y);
        addPiece(out, x, both.y, both.x, both.y + both.height);
        addPiece(out, both.x + both.width, both.y, x + width, both.y + both.height);
        addPiece(out, x, both.y + both.height, x + width, y + height);
        return out;
    }

    private static void addPiece(List<Region> pieces, int left, int top, int right, int bottom) {
        if (left < right && top < bottom) {
            pieces.add(new Region(left, top, right - left, bottom - top));
        }
    }

    public boolean within(Size size) {
        return x >= 0 && y >= 0 && x + width <= size.width() && y + height <= size.height();
    }
}
