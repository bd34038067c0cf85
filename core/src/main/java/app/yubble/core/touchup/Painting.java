package app.yubble.core.touchup;

import app.yubble.core.focus.SharpBand;
import app.yubble.core.raster.Bands;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Region;

/** Draws strokes, and changes nearness and pictures where they are painted. */
public final class Painting {
    private Painting() {}

    /**
     * The mask after one more stroke.
     *
     * @param part of the picture in which it is drawn; what lies outside is not
     */
    public static Mask stroke(Mask before, Stroke stroke, Canvas canvas, Region part) {
        Mask covered = Footprint.of(stroke, before.picture(), part);
        Region open = before.open(covered, stroke.brush().erases());
        if (open == null) {
            return before;
        }
        // Where one paints over what is painted, only little of it has to keep to edges.
        Mask footprint = covered.within(open);
        Mask paint = stroke.brush().cling() > 0 ? Cling.within(footprint, stroke, canvas) : footprint;
        return before.with(paint, stroke.brush().erases());
    }

    /**
     * Moves nearness as a touch-up says. In place. It may leave [0,1]: what is blurred more than the farthest or the nearest
     * point.
     */
    public static void move(Plane nearness, Touchup touchup, Mask mask, SharpBand band) {
        move(nearness, touchup, mask, band, Region.all(nearness.size()));
    }

    /** The same within {@code part} only. */
    public static void move(Plane nearness, Touchup touchup, Mask mask, SharpBand band, Region part) {
        Region box = mask.box();
        Region both = box == null ? null : box.meet(part);
        if (box == null || both == null || !touchup.changesDepth()) {
            return;
        }
        float[] to = nearness.samples();
        Bands.ofRows(both.height(), (from, until) -> {
            for (int y = both.y() + from; y < both.y() + until; y++) {
                int at = y * nearness.width() + both.x();
                int i = (y - box.y()) * box.width() + both.x() - box.x();
                for (int x = 0; x < both.width(); x++, at++, i++) {
                    if (mask.shares()[i] != 0) {
                        to[at] = touchup.moved(to[at], mask.share(i), band);
                    }
                }
            }
        });
    }

    /**
     * Gives back the untouched photo where a touch-up is painted. In place.
     *
     * @param result the pixels of {@code region} of the picture
     */
    public static void reveal(Picture result, Picture photo, Region region, Touchup touchup, Mask mask) {
        if (touchup.action() != Touchup.Action.REVEAL || mask.isEmpty()) {
            return;
        }
        for (int c = 0; c < 3; c++) {
            float[] from = photo.planes().get(c).samples();
            float[] to = result.planes().get(c).samples();
            Bands.ofRows(region.height(), (first, last) -> {
                for (int y = first; y < last; y++) {
                    int row = (y + region.y()) * photo.width() + region.x();
                    for (int x = 0, i = y * region.width(); x < region.width(); x++, i++) {
                        float share = (float) touchup.strength() * mask.at(x + region.x(), y + region.y());
                        if (share > 0) {
                            to[i] += share * (from[row + x] - to[i]);
                        }
                    }
                }
            });
        }
    }
}
