package app.yubble.core.refocus;

import app.yubble.core.focus.SharpBand;
import app.yubble.core.raster.BlockRanges;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Progress;
import app.yubble.core.raster.Region;
import app.yubble.core.raster.Resample;
import app.yubble.core.raster.Size;
import app.yubble.core.touchup.Painting;
import app.yubble.core.touchup.Touchup;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** Nearness after the touch-ups that change depth. It may leave [0,1] where blur was painted. */
record PaintedStage(LadderedStage laddered, List<Painted> paint, SharpBand band)
        implements LocalStage<PaintedStage.Nearness> {
    /**
     * @param isOwn false when nothing is painted and it is the very plane that the stage takes
     * @param ranges of the plane
     */
    record Nearness(Plane plane, boolean isOwn, BlockRanges ranges) {}

    @Override
    public String name() {
        return "painted";
    }

    @Override
    public List<Stage<?>> takes() {
        return List.of(laddered);
    }

    @Override
    public List<?> reads() {
        return List.of(paint.stream().map(Painted::touchup).toList(), band);
    }

    @Override
    public Size size() {
        return laddered.picture().size();
    }

    @Override
    public boolean isOfWholePicture() {
        return true;
    }

    @Override
    public @Nullable Region differs(LocalStage<Nearness> before) {
        PaintedStage other = (PaintedStage) before;
        boolean sameBand = band.equals(other.band);
        return Painted.difference(
                other.paint,
                paint,
                (a, b) -> a.action() == b.action()
                        && a.strength() == b.strength()
                        && a.target() == b.target()
                        && (sameBand || !a.readsBand()));
    }

    @Override
    public Nearness make(Region part, Results taken, Progress progress) {
        Plane before = taken.of(laddered);
        if (paint.isEmpty()) {
            return new Nearness(before, false, BlockRanges.of(before));
        }
        Plane own = before.copy();
        move(own, part);
        return new Nearness(own, true, BlockRanges.of(own));
    }

    @Override
    public Nearness renewed(Nearness own, Region part, Region stale, Results taken, Progress progress) {
        if (!own.isOwn() || paint.isEmpty()) {
            return make(part, taken, progress);
        }
        Resample.copy(taken.of(laddered), own.plane(), stale);
        move(own.plane(), stale);
        own.ranges().renew(own.plane(), stale);
        return own;
    }

    private void move(Plane nearness, Region part) {
        for (Painted each : paint) {
            Painting.move(nearness, each.touchup(), each.mask(), band, part);
        }
    }

    boolean blurs() {
        return paint.stream().anyMatch(each -> each.touchup().action() == Touchup.Action.BLUR);
    }

    /** Masks are held too. */
    @Override
    public long bytes(Nearness result) {
        return result.plane().bytes() + Painted.bytes(paint);
    }
}
