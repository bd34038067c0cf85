package app.yubble.core.refocus;

import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Progress;
import app.yubble.core.raster.Region;
import app.yubble.core.raster.Resample;

/** A step that makes the part of a picture that is looked at. Pictures are handed out, so what is renewed is a copy. */
interface SeenStage extends LocalStage<Picture> {
    /** A part that is nearly all costs more than all at once: parts need what is around them. By eye on the times of dabs. */
    double NEARLY_ALL = 0.6;

    @Override
    default boolean isOfWholePicture() {
        return false;
    }

    /** The part that is made anew for the sake of {@code stale}. */
    default Region drawn(Region stale, Region part) {
        return stale;
    }

    @Override
    default Picture renewed(Picture own, Region part, Region stale, Results taken, Progress progress) {
        Region drawn = drawn(stale, part);
        if (drawn.size().pixels() > NEARLY_ALL * part.size().pixels()) {
            return make(part, taken, progress);
        }
        Picture patch = make(drawn, taken, progress);
        Picture out = own.copy();
        Resample.paste(patch, out, drawn.x() - part.x(), drawn.y() - part.y());
        return out;
    }

    @Override
    default long bytes(Picture result) {
        return result.bytes();
    }
}
