package app.yubble.media.depthfile;

import app.yubble.core.depth.DepthShapeException;
import app.yubble.core.raster.Bands;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Size;
import app.yubble.media.picture.PictureReader;
import app.yubble.media.picture.UnreadablePictureException;
import java.awt.image.BufferedImage;
import java.awt.image.Raster;

/** Reads a depth map that another program made. */
public final class DepthFileReader {
    private final PictureReader pictures;

    public DepthFileReader(PictureReader pictures) {
        this.pictures = pictures;
    }

    /**
     * Nearness in [0,1]: the samples over their largest possible value, the mean of the channels for colour.
     *
     * @param picture the size of the photo it belongs to; it must have its shape
     * @throws UnreadablePictureException when the file is no picture, or all pixels are equal
     * @throws DepthShapeException when it has another shape
     */
    public Plane read(byte[] file, Size picture) {
        BufferedImage image = pictures.readRaw(file);
        Raster raster = image.getRaster();
        int bands = raster.getNumBands();
        int colours = image.getColorModel().getNumColorComponents();
        float most = (1L << image.getColorModel().getComponentSize(0)) - 1;
        Plane out = new Plane(image.getWidth(), image.getHeight());
        if (!out.size().hasShapeOf(picture)) {
            throw new DepthShapeException(out.size(), picture);
        }
        int width = out.width();
        float scale = 1 / (most * colours);
        Bands.ofRows(out.height(), (from, to) -> {
            int[] row = new int[width * bands];
            for (int y = from; y < to; y++) {
                raster.getPixels(raster.getMinX(), raster.getMinY() + y, width, 1, row);
                for (int x = 0; x < width; x++) {
                    long sum = 0;
                    for (int c = 0; c < colours; c++) {
                        sum += row[x * bands + c];
                    }
                    out.samples()[y * width + x] = sum * scale;
                }
            }
        });
        if (out.range().span() == 0) {
            throw new UnreadablePictureException("all pixels of the depth map are equal, so it holds no depth");
        }
        return out;
    }
}
