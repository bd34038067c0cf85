package app.yubble.core.lens;

import app.yubble.core.raster.BlockRanges;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Region;
import app.yubble.core.raster.Size;
import java.util.BitSet;

/**
 * Signed blur radii of all pixels, and what the lens knows of them before it draws. Parts may change. Of a large picture of which a part is
 * looked at only the radii are computed that can be seen there. One thread at a time.
 */
public final class RadiusField {
    // Pixels beside a change are cut at depth edges anew.
    private static final int BESIDE = 4;
    // What is hidden is filled from around, on cells of some pixels.
    private static final int AIR = 12;
    /** Radii are computed in blocks with sides of so many pixels. */
    private static final int BLOCK = 128;

    /** Computes radii. */
    @FunctionalInterface
    public interface Maker {
        void fill(Plane radii, Region part);
    }

    private static final Maker ALL_THERE = (radii, part) -> {};

    private final Plane radii;
    private final int across;
    private final BitSet missing = new BitSet();
    private Maker maker;
    private BlockRanges ranges;
    private Reach reach;

    /** @param radii finite; whoever changes a part of them calls {@link #renew(Region)} */
    public RadiusField(Plane radii) {
        this(radii, BlockRanges.of(radii), ALL_THERE);
    }

    /**
     * A field of which nothing is computed yet.
     *
     * @param ranges of the radii, exactly
     */
    public RadiusField(Size size, BlockRanges ranges, Maker maker) {
        this(new Plane(size), ranges, maker);
        miss(Region.all(size));
    }

    private RadiusField(Plane radii, BlockRanges ranges, Maker maker) {
        this.radii = radii;
        this.ranges = ranges;
        this.maker = maker;
        across = (radii.width() + BLOCK - 1) / BLOCK;
        reach = new Reach(ranges);
    }

    public Size size() {
        return radii.size();
    }

    /** Memory held. */
    public long bytes() {
        return radii.bytes();
    }

    /** All of them. Whoever owns the field may change a part of them and then calls {@link #renew(Region)}. */
    public Plane radii() {
        return radii(Region.all(size()));
    }

    /** Those of a part; what lies elsewhere in the plane means nothing. */
    public Plane radii(Region part) {
        int lastColumn = (part.x() + part.width() - 1) / BLOCK;
        for (int by = part.y() / BLOCK; by <= (part.y() + part.height() - 1) / BLOCK; by++) {
            int end = by * across + lastColumn + 1;
            int first = missing.nextSetBit(by * across + part.x() / BLOCK);
            while (first >= 0 && first < end) {
                int after = Math.min(end, missing.nextClearBit(first));
                maker.fill(radii, blocks(by, first - by * across, after - by * across));
                missing.clear(first, after);
                first = missing.nextSetBit(after);
            }
        }
        return radii;
    }

    private Region blocks(int row, int from, int to) {
        int x = from * BLOCK;
        int y = row * BLOCK;
        return new Region(x, y, Math.min(radii.width(), to * BLOCK) - x, Math.min(radii.height(), y + BLOCK) - y);
    }

    private void miss(Region part) {
        for (int by = part.y() / BLOCK; by <= (part.y() + part.height() - 1) / BLOCK; by++) {
            missing.set(by * across + part.x() / BLOCK, by * across + (part.x() + part.width() - 1) / BLOCK + 1);
        }
    }

    /** Computes all, so that nothing that they are computed from is needed any more. */
    public RadiusField completed() {
        radii();
        maker = ALL_THERE;
        return this;
    }

    Reach reach() {
        return reach;
    }

    /** Something in {@code part} of all the radii was changed. */
    public void renew(Region part) {
        completed();
        ranges.renew(radii, part);
        reach = new Reach(ranges);
    }

    /**
     * What was computed of {@code part} no longer holds.
     *
     * @param now ranges of the radii, exactly
     * @param from now on; elsewhere it computes the same as the one before
     */
    public void renew(Region part, BlockRanges now, Maker from) {
        miss(part);
        maker = from;
        ranges = now;
        reach = new Reach(ranges);
    }

    /** On which everything depends that is drawn: where it stays, a change in one place leaves distant ones as they are. */
    public float largest() {
        return reach.overall();
    }

    /** Where it can be seen that the radii of {@code part} are these and not others. */
    public Region seenFrom(Region part, Disc disc) {
        Region beside = part.grown(BESIDE, radii.size());
        double most = reach.within(beside) * new DiscShape(disc).most();
        Region drawn = beside.grown((int) Math.ceil(most) + AIR, radii.size());
        return reach.hasFront(drawn) ? drawn.grown((int) Math.ceil(most), radii.size()) : drawn;
    }
}
