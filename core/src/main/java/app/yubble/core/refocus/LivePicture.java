package app.yubble.core.refocus;

import app.yubble.core.focus.DefocusField;
import app.yubble.core.focus.Gain;
import app.yubble.core.focus.SharpBand;
import app.yubble.core.lens.Disc;
import app.yubble.core.lens.LensRender;
import app.yubble.core.lens.RadiusField;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Progress;
import app.yubble.core.raster.Region;
import app.yubble.core.raster.Resample;
import app.yubble.core.raster.Size;
import app.yubble.core.touchup.Mask;
import app.yubble.core.touchup.Painting;
import app.yubble.core.touchup.Touchup;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * Nearness, blur radii and the result of one picture at one size, as they were last wanted. The next time only what a mask has
 * changed is computed anew, and drawn as far as that change can be seen; a dab costs what it covers, not what the picture
 * measures. Whoever uses it holds its lock.
 */
final class LivePicture {
    /** Results of more pixels are not kept. */
    private static final long MOST_KEPT = 8_000_000;

    private static final int MOST_RESULTS = 2;
    // Parts of equal size use the lens's memory again.
    private static final int GRID = 64;
    // A part that is nearly all costs more than all at once.
    private static final double NEARLY_ALL = 0.6;

    /** A touch-up and what it paints. */
    record Painted(Touchup touchup, Mask mask) {
        private boolean actsLike(Painted other, boolean sameBand) {
            return touchup.action() == other.touchup.action()
                    && touchup.strength() == other.touchup.strength()
                    && touchup.target() == other.touchup.target()
                    && (sameBand || touchup.action() != Touchup.Action.BLUR);
        }
    }

    /** What radii depend on besides nearness. */
    record Blur(SharpBand band, Gain gain, double radiusPerNearness) {}

    /** What the lens depends on besides radii; see {@link LensRender}. */
    record Light(Picture source, Plane lift, Disc disc) {}

    private static final class Result {
        final Picture picture;

        @Nullable
        Region stale;

        Result(Picture picture) {
            this.picture = picture;
        }
    }

    private final Size size;
    private @Nullable Plane untouched;
    private Plane nearness = new Plane(1, 1);
    private List<Painted> painted = List.of();
    private @Nullable SharpBand paintedBand;
    /** Where nearness has changed since radii were computed. */
    private @Nullable Region moved;

    private @Nullable Blur blur;
    private @Nullable Plane radii;
    private @Nullable RadiusField field;
    private @Nullable Light light;
    private float largest;
    private final Map<Region, Result> results = new LinkedHashMap<>(4, 0.75f, true) {
        private static final long serialVersionUID = 1L;

        @Override
        protected boolean removeEldestEntry(Map.Entry<Region, Result> eldest) {
            return size() > MOST_RESULTS;
        }
    };

    LivePicture(Size size) {
        this.size = size;
    }

    /** What it holds when it is in full use, beside the picture. */
    long bytes() {
        long pixels = size.pixels();
        return Float.BYTES * (2 * pixels + 3 * MOST_RESULTS * Math.min(pixels, MOST_KEPT / 4));
    }

    /**
     * Nearness after the touch-ups; it holds until the lock is given up.
     *
     * @param before nearness without any
     */
    Plane nearness(Plane before, List<Painted> touchups, SharpBand band) {
        Region all = Region.all(size);
        Region changed = untouched == before ? changedBy(touchups, band) : all;
        if (changed != null) {
            boolean own = untouched != null && nearness != untouched;
            if (touchups.isEmpty()) {
                nearness = before;
            } else {
                if (!own) {
                    nearness = before.copy();
                } else {
                    copy(before, nearness, changed);
                }
                for (Painted each : touchups) {
                    Painting.move(nearness, each.touchup(), each.mask(), band, changed);
                }
            }
            moved = Region.around(moved, changed);
        }
        untouched = before;
        painted = touchups;
        paintedBand = band;
        return nearness;
    }

    private @Nullable Region changedBy(List<Painted> touchups, SharpBand band) {
        Region changed = null;
        boolean sameBand = band.equals(paintedBand);
        for (int i = 0; i < Math.max(touchups.size(), painted.size()); i++) {
            Painted before = i < painted.size() ? painted.get(i) : null;
            Painted now = i < touchups.size() ? touchups.get(i) : null;
            if (before != null && now != null && now.actsLike(before, sameBand)) {
                changed = Region.around(changed, Mask.difference(before.mask(), now.mask()));
            } else {
                changed = Region.around(
                        changed, before == null ? null : before.mask().box());
                changed = Region.around(changed, now == null ? null : now.mask().box());
            }
        }
        return changed;
    }

    private static void copy(Plane from, Plane to, Region part) {
        for (int y = part.y(); y < part.y() + part.height(); y++) {
            int at = y * from.width() + part.x();
            System.arraycopy(from.samples(), at, to.samples(), at, part.width());
        }
    }

    /** What the lens makes of a part of the picture, with the nearness that was last asked for. */
    Picture rendered(Blur wanted, Light now, Region region, Progress progress) {
        RadiusField current = field(wanted, now.disc());
        // All steps of radius depend on the largest.
        if (!now.equals(light) || current.largest() != largest) {
            results.clear();
            light = now;
            largest = current.largest();
        }
        Result known = results.get(region);
        if (known == null) {
            return all(current, now, region, progress);
        }
        Region stale = known.stale == null ? null : known.stale.meet(region);
        if (stale != null) {
            Region part = onGrid(stale, region);
            if (part.size().pixels() > NEARLY_ALL * region.size().pixels()) {
                return all(current, now, region, progress);
            }
            Picture patch = drawn(current, now, part, progress);
            Picture picture = known.picture.copy();
            Resample.paste(patch, picture, part.x() - region.x(), part.y() - region.y());
            results.put(region, new Result(picture));
            return picture;
        }
        progress.at(1);
        return known.picture;
    }

    private Picture all(RadiusField current, Light now, Region region, Progress progress) {
        Picture picture = drawn(current, now, region, progress);
        if (region.size().pixels() <= MOST_KEPT) {
            results.put(region, new Result(picture));
        }
        return picture;
    }

    private static Picture drawn(RadiusField current, Light now, Region part, Progress progress) {
        return LensRender.render(now.source(), current, now.disc(), now.lift(), part, progress);
    }

    private RadiusField field(Blur wanted, Disc disc) {
        if (field == null || radii == null || !wanted.equals(blur)) {
            blur = null;
            radii = radii == null ? new Plane(size) : radii;
            renew(radii, Region.all(size), wanted);
            field = new RadiusField(radii);
            blur = wanted;
            results.clear();
        } else if (moved != null) {
            Region before = field.seenFrom(moved, disc);
            renew(radii, moved, wanted);
            field.renew(moved);
            Region seen = Region.around(before, field.seenFrom(moved, disc));
            results.values().forEach(each -> each.stale = Region.around(each.stale, seen));
        }
        moved = null;
        return field;
    }

    private void renew(Plane to, Region part, Blur wanted) {
        DefocusField.renew(to, part, nearness, wanted.band(), wanted.gain(), wanted.radiusPerNearness());
    }

    /** A part of {@code region} around {@code stale}, of a size that comes often. */
    private static Region onGrid(Region stale, Region region) {
        int width = Math.min(region.width(), (stale.width() + GRID - 1) / GRID * GRID);
        int height = Math.min(region.height(), (stale.height() + GRID - 1) / GRID * GRID);
        int x = Math.min(stale.x(), region.x() + region.width() - width);
        int y = Math.min(stale.y(), region.y() + region.height() - height);
        return new Region(x, y, width, height);
    }
}
