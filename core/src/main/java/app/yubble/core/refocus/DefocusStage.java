package app.yubble.core.refocus;

import app.yubble.core.focus.DefocusField;
import app.yubble.core.focus.Gain;
import app.yubble.core.focus.SharpBand;
import app.yubble.core.lens.RadiusField;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Progress;
import app.yubble.core.raster.Region;
import app.yubble.core.raster.Size;
import java.util.List;

/**
 * The defocus field: the signed blur radius of every pixel.
 *
 * @param radiusPerNearness in pixels, for a unit of nearness outside the band
 */
record DefocusStage(PaintedStage painted, SharpBand band, Gain gain, double radiusPerNearness)
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
        return List.of(band, gain, radiusPerNearness);
    }

    @Override
    public Size size() {
        return painted.size();
    }

    @Override
    public boolean isOfWholePicture() {
        return true;
    }

    /** Whether nothing is out of focus. */
    boolean isSharp() {
        return band.coversEverything() && !painted.blurs();
    }

    @Override
    public RadiusField make(Region part, Results taken, Progress progress) {
        return new RadiusField(DefocusField.of(taken.of(painted).plane(), band, gain, radiusPerNearness));
    }

    @Override
    public RadiusField renewed(RadiusField own, Region part, Region stale, Results taken, Progress progress) {
        Plane nearness = taken.of(painted).plane();
        DefocusField.renew(own.radii(), stale, nearness, band, gain, radiusPerNearness);
        own.renew(stale);
        return own;
    }

    @Override
    public long bytes(RadiusField result) {
        return result.radii().bytes();
    }
}
