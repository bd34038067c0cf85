package app.yubble.core.keep;

import app.yubble.core.keep.SceneSource.Scene;
import app.yubble.core.raster.Plane;

/** A mask on its way from frame to frame. */
interface Carried {
    /** It at the next frame: 1 on the subject, 0 elsewhere. */
    Plane to(Scene next);

    /** How much of it has been guessed since it was given. */
    double guessed();
}
