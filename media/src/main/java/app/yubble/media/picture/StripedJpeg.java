package app.yubble.media.picture;

import app.yubble.core.raster.Bands;
import java.awt.image.BufferedImage;
import java.awt.image.RenderedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.Arrays;
import java.util.List;
import javax.imageio.IIOImage;
import javax.imageio.ImageIO;
import javax.imageio.ImageTypeSpecifier;
import javax.imageio.ImageWriteParam;
import javax.imageio.ImageWriter;
import javax.imageio.metadata.IIOMetadata;
import javax.imageio.stream.ImageOutputStream;
import org.w3c.dom.Element;
import org.w3c.dom.NodeList;

/**
 * Writes a baseline JPEG, its strips on all cores.
 *
 * <p>How: each strip is a JPEG of its own with the same tables. Their pixels are put one after the other with restart markers
 * between them, which begin anew just as a file does (ITU-T T.81, E.1.4 and F.1.1.5). One strip after another took a fifth of the
 * time of a preview.
 */
final class StripedJpeg {
    /** Pixels of a block; with colour at half resolution four of them go together. */
    private static final int BLOCK = 8;
    /** Pixels of height of most strips: some strips for each core, but few restarts. */
    private static final int STRIP = CodedImage.ROWS;
    /** What the restart interval can say, in blocks. */
    private static final int MOST_BLOCKS = 65_535;

    private StripedJpeg() {}

    /**
     * @param quality in [0,1]
     * @param halvesColour whether colour has half the resolution
     */
    static byte[] of(BufferedImage image, double quality, boolean halvesColour) throws IOException {
        return of(image, (top, rows) -> image.getSubimage(0, top, image.getWidth(), rows), quality, halvesColour);
    }

    static byte[] of(CodedImage image, double quality, boolean halvesColour) throws IOException {
        return of(image, image::rows, quality, halvesColour);
    }

    /** Gives rows of an image. */
    @FunctionalInterface
    private interface Strips {
        BufferedImage rows(int top, int count);
    }

    private static byte[] of(RenderedImage image, Strips parts, double quality, boolean halvesColour)
            throws IOException {
        int block = halvesColour ? 2 * BLOCK : BLOCK;
        int blocksAcross = (image.getWidth() + block - 1) / block;
        int height = Math.min(STRIP, Math.max(1, MOST_BLOCKS / blocksAcross) * block);
        int count = (image.getHeight() + height - 1) / height;
        byte[][] strips = new byte[count][];
        try {
            Bands.ofPieces(count, i -> {
                int top = i * height;
                int rows = Math.min(height, image.getHeight() - top);
                strips[i] = whole(parts.rows(top, rows), quality, halvesColour);
            });
        } catch (UncheckedIOException fault) {
            throw fault.getCause();
        }
        return count == 1 ? strips[0] : joined(strips, image.getHeight(), blocksAcross * (height / block));
    }

    private static byte[] joined(byte[][] strips, int height, int interval) {
        ByteArrayOutputStream out = new ByteArrayOutputStream(1 << 18);
        byte[] first = strips[0];
        List<JpegSegments.Segment> segments = JpegSegments.of(first, 0);
        int scan = JpegSegments.end(segments, 0);
        for (JpegSegments.Segment each : segments) {
            if (each.isFrame()) {
                first[each.from() + 1] = (byte) (height >>> 8);
                first[each.from() + 2] = (byte) height;
            }
        }
        out.write(first, 0, scan);
        out.writeBytes(new byte[] {
            (byte) 0xff, (byte) JpegSegments.RESTART_INTERVAL, 0, 4, (byte) (interval >>> 8), (byte) interval
        });
        int pixels = pixels(first, scan);
        out.write(first, scan, pixels - scan);
        for (int i = 0; i < strips.length; i++) {
            byte[] strip = strips[i];
            int from = pixels(strip, JpegSegments.end(JpegSegments.of(strip, 0), 0));
            out.write(strip, from, strip.length - 2 - from);
            out.write(0xff);
            out.write(i == strips.length - 1 ? JpegSegments.END : JpegSegments.FIRST_RESTART + i % 8);
        }
        return out.toByteArray();
    }

    /** Where the pixels begin, after the header of the scan at {@code scan}. */
    private static int pixels(byte[] file, int scan) {
        return scan + 2 + ((file[scan + 2] & 0xff) << 8 | file[scan + 3] & 0xff);
    }

    private static byte[] whole(BufferedImage image, double quality, boolean halvesColour) {
        ImageWriter writer = PictureWriter.writer("com.sun.imageio.plugins.jpeg.JPEGImageWriter", "jpeg");
        ByteArrayOutputStream plain = new ByteArrayOutputStream();
        try (ImageOutputStream to = ImageIO.createImageOutputStream(plain)) {
            ImageWriteParam param = writer.getDefaultWriteParam();
            param.setCompressionMode(ImageWriteParam.MODE_EXPLICIT);
            param.setCompressionQuality((float) quality);
            IIOMetadata metadata = writer.getDefaultImageMetadata(new ImageTypeSpecifier(image), param);
            if (!halvesColour) {
                keepColourResolution(metadata);
            }
            writer.setOutput(to);
            writer.write(null, new IIOImage(image, null, metadata), param);
        } catch (IOException fault) {
            throw new UncheckedIOException(fault);
        } finally {
            writer.dispose();
        }
        byte[] bytes = plain.toByteArray();
        // Whatever may follow the end of the picture would stand between strips.
        int end = bytes.length;
        while (bytes[end - 1] != (byte) JpegSegments.END || bytes[end - 2] != (byte) 0xff) {
            end--;
        }
        return end == bytes.length ? bytes : Arrays.copyOf(bytes, end);
    }

    /** The writer halves the colour's resolution by default; edges between colours would fray. */
    private static void keepColourResolution(IIOMetadata metadata) throws IOException {
        Element root = (Element) metadata.getAsTree("javax_imageio_jpeg_image_1.0");
        NodeList components = root.getElementsByTagName("componentSpec");
        for (int i = 0; i < components.getLength(); i++) {
            ((Element) components.item(i)).setAttribute("HsamplingFactor", "1");
            ((Element) components.item(i)).setAttribute("VsamplingFactor", "1");
        }
        metadata.setFromTree("javax_imageio_jpeg_image_1.0", root);
    }
}
