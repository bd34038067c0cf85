package app.yubble.media.depthfile;

import app.yubble.core.raster.Plane;
import app.yubble.media.picture.FileType;
import app.yubble.media.picture.Origin;
import app.yubble.media.picture.PictureWriter;
import app.yubble.media.picture.TiffWriter;
import java.awt.Transparency;
import java.awt.color.ColorSpace;
import java.awt.image.BandedSampleModel;
import java.awt.image.BufferedImage;
import java.awt.image.ComponentColorModel;
import java.awt.image.DataBuffer;
import java.awt.image.DataBufferFloat;
import java.awt.image.Raster;
import java.io.IOException;
import java.io.OutputStream;
import java.util.List;
import java.util.Optional;

/** Writes nearness as pictures: white is near. */
public final class DepthWriter {
    private DepthWriter() {}

    /** What can be written: a PNG of 16 bits, or a TIFF or EXR of 32-bit floating point numbers. */
    public enum Format {
        PNG16("image/png", "png"),
        TIFF32("image/tiff", "tif"),
        EXR32("image/x-exr", "exr");

        private final FileType type;

        Format(String mediaType, String ending) {
            type = new FileType(mediaType, ending);
        }

        public FileType type() {
            return type;
        }

        /** By the ending of a file name. */
        public static Optional<Format> ofName(String name) {
            return switch (FileType.endingOf(name)) {
                case "png" -> Optional.of(PNG16);
                case "tif", "tiff" -> Optional.of(TIFF32);
                case "exr" -> Optional.of(EXR32);
                default -> Optional.empty();
            };
        }
    }

    public static void write(Plane nearness, Format format, OutputStream out) throws IOException {
        switch (format) {
            case PNG16 -> PictureWriter.writeGrey(nearness, out);
            case TIFF32 -> TiffWriter.write(List.of(floats(nearness)), Origin.srgb(nearness.size()), out);
            case EXR32 -> ExrWriter.write(nearness, out);
        }
    }

    private static BufferedImage floats(Plane plane) {
        DataBufferFloat data = new DataBufferFloat(plane.samples(), plane.samples().length);
        BandedSampleModel samples = new BandedSampleModel(DataBuffer.TYPE_FLOAT, plane.width(), plane.height(), 1);
        ComponentColorModel model = new ComponentColorModel(
                ColorSpace.getInstance(ColorSpace.CS_GRAY), false, false, Transparency.OPAQUE, DataBuffer.TYPE_FLOAT);
        return new BufferedImage(model, Raster.createWritableRaster(samples, data, null), false, null);
    }
}
