package app.yubble.core.depth;

import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Progress;
import app.yubble.core.subject.Quality;

/** Nearer downwards, nothing else: the yardstick that every other estimate has to beat. */
public final class RampEstimator implements DepthEstimator {
    @Override
    public String name() {
        return "ramp";
    }

    @Override
    public DepthEstimate estimate(Picture picture, Quality quality, Progress progress) {
        var size = picture.size().fitting(LayoutEstimator.WORKING_SIDE);
        Plane out = new Plane(size);
        for (int y = 0; y < size.height(); y++) {
            float nearness = (y + 0.5f) / size.height();
            for (int x = 0; x < size.width(); x++) {
                out.samples()[y * size.width() + x] = nearness;
            }
        }
        progress.at(1);
        return DepthEstimate.of(out);
    }
}
