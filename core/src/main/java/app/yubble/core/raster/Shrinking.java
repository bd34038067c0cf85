package app.yubble.core.raster;

/** A picture made much smaller, each pixel the mean of a square, while it comes part by part. */
public final class Shrinking {
    private final int side;
    private final Picture sums;
    private final int width;
    private final int height;

    /**
     * @param size of the picture that comes
     * @param longSide of what is wanted, at least, where the picture is as large
     */
    public Shrinking(Size size, int longSide) {
        side = Math.max(1, size.longSide() / longSide);
        width = size.width();
        height = size.height();
        sums = Picture.blank(new Size((width + side - 1) / side, (height + side - 1) / side));
    }

    /** A part whose upper left corner is at (x, y); each pixel comes once. */
    public void add(Picture part, int x, int y) {
        int top = y / side;
        int bottom = (y + part.height() - 1) / side + 1;
        for (int c = 0; c < 3; c++) {
            Plane from = part.planes().get(c);
            Plane to = sums.planes().get(c);
            Bands.ofRows(bottom - top, (first, last) -> {
                for (int row = top + first; row < top + last; row++) {
                    int end = Math.min(y + part.height(), (row + 1) * side);
                    for (int v = Math.max(y, row * side); v < end; v++) {
                        addRow(from, v - y, x, to, row);
                    }
                }
            });
        }
    }

    private void addRow(Plane from, int fromRow, int x, Plane to, int toRow) {
        int i = fromRow * from.width();
        for (int u = 0; u < from.width(); u++, i++) {
            to.samples()[toRow * to.width() + (x + u) / side] += from.samples()[i];
        }
    }

    /** Once all parts are there. */
    public Picture picture() {
        Picture out = Picture.blank(sums.size());
        for (int c = 0; c < 3; c++) {
            for (int y = 0, i = 0; y < out.height(); y++) {
                int rows = Math.min(side, height - y * side);
                for (int x = 0; x < out.width(); x++, i++) {
                    int count = rows * Math.min(side, width - x * side);
                    out.planes().get(c).samples()[i] = sums.planes().get(c).samples()[i] / count;
                }
            }
        }
        return out;
    }
}
