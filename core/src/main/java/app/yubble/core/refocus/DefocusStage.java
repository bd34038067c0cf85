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
        Plane nearness = taken.of(painted).plane();
        Plane radii = DefocusField.of(nearness, band, gain, radiusPerNearness);
        ShapeField.widen(radii, Region.all(size()), nearness, shapes);
        return new RadiusField(radii);
    }

    @Override
    public RadiusField renewed(RadiusField own, Region part, Region stale, Results taken, Progress progress) {
        Plane nearness = taken.of(painted).plane();
        DefocusField.renew(own.radii(), stale, nearness, band, gain, radiusPerNearness);
        ShapeField.widen(own.radii(), stale, nearness, shapes);
        own.renew(stale);
        return own;
    }

    @Override
    public long bytes(RadiusField result) {
        return result.radii().bytes();
    }
}
