package app.yubble.media.depthfile;

import app.yubble.core.depth.DepthShapeException;
import app.yubble.core.raster.Bands;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Size;
import app.yubble.media.picture.PictureReader;
import app.yubble.media.picture.UnreadablePictureException;
import java.awt.image.BufferedImage;
import java.awt.image.ComponentSampleModel;
import java.awt.image.DataBuffer;
import java.awt.image.DataBufferUShort;
import java.awt.image.Raster;

/** Reads a depth map that another program made. */
public final class DepthFileReader {
    private final PictureReader pictures;

    public DepthFileReader(PictureReader pictures) {
        this.pictures = pictures;
    }

    /**
     * Nearness in [0,1]: whole numbers over their largest possible value, the mean of the channels for colour; floating
     * point as it is when all of it lies in [0,1], else from its smallest to its largest value.
     *
     * @param picture the size of the photo it belongs to; it must have its shape
     * @throws UnreadablePictureException when the file is no picture, holds values that are no numbers, or all pixels are
     *     equal
     * @throws DepthShapeException when it has another shape
     */
    public Plane read(byte[] file, Size picture) {
        return checked(readFrame(file, picture));
    }

    /** The same for one of many: a map whose pixels are all equal is taken. */
    public Plane readFrame(byte[] file, Size picture) {
        Plane plane = ExrReader.isExr(file)
                ? new ExrReader(pictures.mostPixels()).read(file)
                : samples(pictures.readPlain(file));
        if (!plane.size().hasShapeOf(picture)) {
            throw new DepthShapeException(plane.size(), picture);
        }
        return plane;
    }

    /**
     * How large the file says it is, before anything is decoded.
     *
     * @throws UnreadablePictureException when it is no picture, or larger than any that is taken
     */
    public Size claimed(byte[] file) {
        return ExrReader.isExr(file) ? new ExrReader(pictures.mostPixels()).size(file) : pictures.claimed(file);
    }

    /** The samples of a picture as nearness, without any check but that they are numbers. */
    static Plane samples(BufferedImage image) {
        int type = image.getRaster().getDataBuffer().getDataType();
        boolean floats = type == DataBuffer.TYPE_FLOAT || type == DataBuffer.TYPE_DOUBLE;
        int colours = image.getColorModel().getNumColorComponents();
        double most = floats ? 1 : (1L << image.getColorModel().getComponentSize(0)) - 1;
        Plane plane = mean(image.getRaster(), colours, (float) (1 / (most * colours)));
        return floats ? ranged(plane) : plane;
    }

    private static Plane mean(Raster raster, int colours, float scale) {
        Plane out = new Plane(raster.getWidth(), raster.getHeight());
        int width = out.width();
        int bands = raster.getNumBands();
        if (bands == 1
                && raster.getDataBuffer() instanceof DataBufferUShort deep
                && raster.getSampleModel() instanceof ComponentSampleModel model) {
            return grey(raster, deep, model, scale);
        }
        Bands.ofRows(out.height(), (from, to) -> {
            float[] row = new float[width * bands];
            for (int y = from; y < to; y++) {
                raster.getPixels(raster.getMinX(), raster.getMinY() + y, width, 1, row);
                for (int x = 0; x < width; x++) {
                    double sum = 0;
                    for (int c = 0; c < colours; c++) {
                        sum += row[x * bands + c];
                    }
                    out.samples()[y * width + x] = (float) (sum * scale);
                }
            }
        });
        return out;
    }

    /** The usual kind of map, without a call for every sample. */
    private static Plane grey(Raster raster, DataBufferUShort deep, ComponentSampleModel model, float scale) {
        Plane out = new Plane(raster.getWidth(), raster.getHeight());
        short[] data = deep.getData();
        int step = model.getPixelStride();
        int left = raster.getMinX() - raster.getSampleModelTranslateX();
        int top = raster.getMinY() - raster.getSampleModelTranslateY();
        Bands.ofRows(out.height(), (from, to) -> {
            for (int y = from; y < to; y++) {
                int at = deep.getOffset() + model.getOffset(left, top + y);
                int end = (y + 1) * out.width();
                for (int i = end - out.width(); i < end; i++, at += step) {
                    out.samples()[i] = (data[at] & 0xffff) * scale;
                }
            }
        });
        return out;
    }

    /** Floating point to [0,1]; see {@link #read}. */
    static Plane ranged(Plane plane) {
        float[] samples = plane.samples();
        for (int i = 0; i < samples.length; i++) {
            if (!Float.isFinite(samples[i])) {
                throw new UnreadablePictureException(
                        "the depth map holds values that are no numbers or infinite, the first" + " at pixel "
                                + i % plane.width() + ", " + i / plane.width());
            }
        }
        Plane.Range range = plane.range();
        if (range.low() >= 0 && range.high() <= 1 || range.span() == 0) {
            return plane;
        }
        Plane out = new Plane(plane.size());
        for (int i = 0; i < samples.length; i++) {
            out.samples()[i] = (samples[i] - range.low()) / range.span();
        }
        return out;
    }

    private static Plane checked(Plane plane) {
        if (plane.range().span() == 0) {
            throw new UnreadablePictureException("all pixels of the depth map are equal, so it holds no depth");
        }
        return plane;
    }
}
