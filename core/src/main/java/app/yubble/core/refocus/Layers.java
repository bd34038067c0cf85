package app.yubble.core.refocus;

import app.yubble.core.raster.Bands;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Resample;
import app.yubble.core.raster.Size;

/**
 * A result as a layer over the photo, for programs that work with layers.
 *
 * @param photo untouched
 * @param refocused wherever it is seen
 * @param share of the refocused layer in the result, in [0,1]
 */
public record Layers(Picture photo, Picture refocused, Plane share) {
    public Layers {
        if (!photo.size().equals(refocused.size()) || !photo.size().equals(share.size())) {
            throw new IllegalArgumentException("layers are as large as the photo");
        }
    }

    /** The same no larger than this, for looking at. */
    public Layers fitting(int longSide) {
        Size size = photo.size().fitting(Math.min(longSide, photo.size().longSide()));
        return new Layers(Resample.toSize(photo, size), Resample.toSize(refocused, size), Resample.toSize(share, size));
    }

    /** The result. */
    public Picture composed() {
        Picture out = Picture.blank(photo.size());
        int width = photo.width();
        for (int c = 0; c < 3; c++) {
            float[] from = photo.planes().get(c).samples();
            float[] over = refocused.planes().get(c).samples();
            float[] to = out.planes().get(c).samples();
            Bands.ofRows(photo.height(), (first, last) -> {
                for (int i = first * width; i < last * width; i++) {
                    to[i] = from[i] + share.samples()[i] * (over[i] - from[i]);
                }
            });
        }
        return out;
    }
}
