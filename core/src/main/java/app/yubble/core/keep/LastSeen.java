package app.yubble.core.keep;

import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Region;
import app.yubble.core.raster.Size;
import java.util.function.IntPredicate;
import org.jspecify.annotations.Nullable;

/**
 * A subject as it was when nearly all of it was seen: where the rest is when something hides a part.
 *
 * @param colours rooted red, green and blue of the frame
 */
@SuppressWarnings("ArrayRecordComponent")
record LastSeen(float[][] colours, Plane mask) {
    static final LastSeen NEVER = new LastSeen(new float[3][1], new Plane(1, 1));
    /** Pixels between places that are tried, at first and at last. */
    private static final int COARSE = 4;
    /** Every so many pixels of it are looked at. */
    private static final int STEP = 3;
    /** Difference of a rooted colour at which a place says as much for it as against it. */
    private static final float UNLIKE = 0.12f;
    /** The most that a place says against it, when it says 1 for it at the most. */
    private static final float AGAINST = -1;
    /** Pixels by which a part may lie elsewhere than it did. */
    private static final int SLACK = 3;

    /** By how many pixels it has gone to the right and down. */
    record At(LastSeen what, int right, int down) {
        /** How much a place looks as it did, from 1 for the same down; 0 where it was not. */
        float like(float[][] now, int place) {
            Size size = what.mask.size();
            int x = place % size.width() - right;
            int y = place / size.width() - down;
            float best = 0;
            for (int py = Math.max(0, y - SLACK); py <= Math.min(size.height() - 1, y + SLACK); py++) {
                for (int px = Math.max(0, x - SLACK); px <= Math.min(size.width() - 1, x + SLACK); px++) {
                    int own = py * size.width() + px;
                    if (what.mask.samples()[own] > 0.5f) {
                        best = Math.max(best, what.like(now, place, own));
                    }
                }
            }
            return best;
        }

        /** Around all of it, as far as it lies in the picture; null when nothing of it does. */
        @Nullable
        Region box() {
            Region own = Carry.box(what.mask);
            return own == null
                    ? null
                    : new Region(own.x() + right, own.y() + down, own.width(), own.height())
                            .meet(Region.all(what.mask.size()));
        }

        /**
         * Where it is now.
         *
         * @param now rooted colours
         * @param open places that may be of it; all others may be what hides it
         * @param reach pixels to each side by which it may have gone aside
         */
        At found(float[][] now, IntPredicate open, int reach) {
            At best = this;
            double most = Double.NEGATIVE_INFINITY;
            for (int step = COARSE; step >= 1; step /= 2) {
                int around = step == COARSE ? reach : step;
                At from = best;
                for (int dy = -around; dy <= around; dy += step) {
                    for (int dx = -around; dx <= around; dx += step) {
                        At tried = new At(what, from.right + dx, from.down + dy);
                        double likeness = tried.likeness(now, open);
                        if (likeness > most) {
                            most = likeness;
                            best = tried;
                        }
                    }
                }
            }
            return best;
        }

        private double likeness(float[][] now, IntPredicate open) {
            Size size = what.mask.size();
            double sum = 0;
            for (int y = Math.max(0, -down); y < Math.min(size.height(), size.height() - down); y += STEP) {
                for (int x = Math.max(0, -right); x < Math.min(size.width(), size.width() - right); x += STEP) {
                    int own = y * size.width() + x;
                    int place = own + down * size.width() + right;
                    if (what.mask.samples()[own] > 0.5f && open.test(place)) {
                        sum += what.like(now, place, own);
                    }
                }
            }
            return sum;
        }
    }

    At where() {
        return new At(this, 0, 0);
    }

    private float like(float[][] now, int place, int own) {
        float most = 0;
        for (int c = 0; c < now.length; c++) {
            most = Math.max(most, Math.abs(now[c][place] - colours[c][own]));
        }
        return Math.max(AGAINST, 1 - most / UNLIKE);
    }
}
