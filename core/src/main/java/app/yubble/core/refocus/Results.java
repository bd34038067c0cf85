package app.yubble.core.refocus;

import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Region;

/** The results of the stages before. */
interface Results {
    /** All that a stage has made; it is not to be modified. */
    <T> T of(Stage<T> stage);

    /** What a stage has made of {@code part}. */
    Picture of(Stage<Picture> stage, Region part);
}
