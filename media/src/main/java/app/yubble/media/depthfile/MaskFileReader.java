package app.yubble.media.depthfile;

import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Size;
import app.yubble.media.picture.PictureReader;
import app.yubble.media.picture.UnreadablePictureException;
import java.awt.image.BufferedImage;
import java.awt.image.WritableRaster;

/** Reads a mask that was drawn elsewhere: white is painted, black and transparent are not. */
public final class MaskFileReader {
    private final PictureReader pictures;

    public MaskFileReader(PictureReader pictures) {
        this.pictures = pictures;
    }

    /**
     * Shares in [0,1]: the mean of the colours, times the opacity where the file has one.
     *
     * @param picture the size of the photo it belongs to; it must have its shape
     * @throws UnreadablePictureException when the file is no picture or holds values that are no numbers
     * @throws IllegalArgumentException when it has another shape
     */
    public Plane read(byte[] file, Size picture) {
        BufferedImage image = pictures.readPlain(file);
        Size size = new Size(image.getWidth(), image.getHeight());
        if (!size.hasShapeOf(picture)) {
            throw new IllegalArgumentException("the mask is " + size + " but the photo is " + picture
                    + "; a mask may be larger or smaller, but must have the photo's shape");
        }
        Plane out = DepthFileReader.samples(image);
        WritableRaster opacity = image.getAlphaRaster();
        if (opacity != null) {
            float most = (1L
                            << image.getColorModel()
                                    .getComponentSize(image.getColorModel().getNumComponents() - 1))
                    - 1;
            float[] row = new float[size.width()];
            for (int y = 0; y < size.height(); y++) {
                opacity.getPixels(opacity.getMinX(), opacity.getMinY() + y, size.width(), 1, row);
                for (int x = 0; x < row.length; x++) {
                    out.samples()[y * row.length + x] *= row[x] / most;
                }
            }
        }
        return out;
    }
}
