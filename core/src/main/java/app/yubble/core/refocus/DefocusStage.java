package app.yubble.core.refocus;

import app.yubble.core.focus.DefocusField;
import app.yubble.core.focus.Gain;
import app.yubble.core.focus.SharpBand;
import app.yubble.core.lens.RadiusField;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Progress;
import app.yubble.core.raster.Region;
import app.yubble.core.raster.Size;
import app.yubble.core.shape.BlurShape;
import app.yubble.core.shape.ShapeField;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * The defocus field: the signed blur radius of every pixel.
 *
 * @param radiusPerNearness in pixels, for a unit of nearness outside the band
 * @param shapes those that act
 */
record DefocusStage(PaintedStage painted, SharpBand band, Gain gain, double radiusPerNearness, List<BlurShape> shapes)
        implements LocalStage<RadiusField> {
    @Override
    public String name() {
        return "defocus";
    }

    @Override
    public List<Stage<?>> takes() {
        return List.of(painted);
    }

    @Override
    public List<?> reads() {
        return List.of(band, gain, radiusPerNearness, shapes);
    }

    @Override
    public Size size() {
        return painted.size();
    }

    @Override
    public boolean isOfWholePicture() {
        return true;
    }

    @Override
    public @Nullable Region differs(LocalStage<RadiusField> before) {
        DefocusStage other = (DefocusStage) before;
        boolean sameBand =
                band.equals(other.band) && gain.equals(other.gain) && radiusPerNearness == other.radiusPerNearness;
        return sameBand ? ShapeField.difference(other.shapes, shapes, size()) : Region.all(size());
    }

    /** Whether nothing is out of focus. */
    boolean isSharp() {
        return band.coversEverything() && !painted.blurs() && shapes.isEmpty();
    }

    @Override
    public RadiusField make(Region part, Results taken, Progress progress) {
        DefocusField field = field();
        PaintedStage.Nearness nearness = taken.of(painted);
        if (isOfNearnessAlone(field)) {
            return new RadiusField(size(), field.ranges(nearness.ranges()), maker(field, nearness));
        }
        Plane radii = new Plane(size());
        fill(radii, Region.all(size()), field, nearness);
        return new RadiusField(radii);
    }

    /** Nobody else is to need what it is made of. */
    @Override
    public RadiusField makeOf(Set<Stage<?>> spare, Results taken) {
        return make(Region.all(size()), taken, Progress.NONE).completed();
    }

    @Override
    public RadiusField renewed(RadiusField own, Region part, Region stale, Results taken, Progress progress) {
        DefocusField field = field();
        PaintedStage.Nearness nearness = taken.of(painted);
        if (isOfNearnessAlone(field)) {
            own.renew(stale, field.ranges(nearness.ranges()), maker(field, nearness));
        } else {
            fill(own.radii(), stale, field, nearness);
            own.renew(stale);
        }
        return own;
    }

    private DefocusField field() {
        return new DefocusField(band, gain, radiusPerNearness);
    }

    /** Then it is known how much is blurred without a look at every pixel. */
    private boolean isOfNearnessAlone(DefocusField field) {
        return field.isLevel() && shapes.isEmpty();
    }

    private static RadiusField.Maker maker(DefocusField field, PaintedStage.Nearness nearness) {
        return (radii, part) -> field.fill(radii, part, nearness.plane());
    }

    private void fill(Plane radii, Region part, DefocusField field, PaintedStage.Nearness nearness) {
        field.fill(radii, part, nearness.plane());
        ShapeField.widen(radii, part, nearness.plane(), shapes);
    }

    @Override
    public long bytes(RadiusField result) {
        return result.bytes();
    }
}
