package app.yubble.server.shoot;

import app.yubble.core.clip.Moment;
import app.yubble.core.raster.Plane;
import app.yubble.core.refocus.Still;
import org.jspecify.annotations.Nullable;

/** One moment of a shot. */
public interface ShotStill extends Still {
    Moment moment();

    @Override
    default ShotStill at(double seconds) {
        return this;
    }

    @Override
    default int pattern() {
        return moment().frame();
    }

    /** The subject's matte, when a clear one has been found. */
    @Nullable
    Plane clearMatte();
}
