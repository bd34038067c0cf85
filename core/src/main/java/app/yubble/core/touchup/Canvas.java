package app.yubble.core.touchup;

import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Resample;
import app.yubble.core.raster.Size;

/** What is painted on: a photo and its nearness before any touch-up, both at whatever size is needed. */
public interface Canvas {
    /** In linear light. */
    Picture picture(Size size);

    Plane nearness(Size size);

    /** Of one size, from which smaller ones are made. */
    static Canvas of(Picture picture, Plane nearness) {
        return new Canvas() {
            @Override
            public Picture picture(Size size) {
                return Resample.toSize(picture, size);
            }

            @Override
            public Plane nearness(Size size) {
                return Resample.toSize(nearness, size);
            }
        };
    }
}
