package app.yubble.media.picture;

import java.awt.image.RenderedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.util.zip.DeflaterOutputStream;
import javax.imageio.IIOImage;
import javax.imageio.ImageIO;
import javax.imageio.ImageTypeSpecifier;
import javax.imageio.ImageWriteParam;
import javax.imageio.ImageWriter;
import javax.imageio.metadata.IIOMetadata;
import javax.imageio.metadata.IIOMetadataNode;
import javax.imageio.stream.ImageOutputStream;

/** Writes PNG with profile, EXIF and XMP. */
public final class PngWriter {
    private PngWriter() {}

    public static void write(RenderedImage image, Origin origin, OutputStream out) throws IOException {
        ImageWriter writer = PictureWriter.writer("com.sun.imageio.plugins.png.PNGImageWriter", "png");
        try (ImageOutputStream to = ImageIO.createImageOutputStream(out)) {
            ImageWriteParam param = writer.getDefaultWriteParam();
            param.setCompressionMode(ImageWriteParam.MODE_EXPLICIT);
            // 0 is the strongest and slowest, 1 stores; this is deflate at a low level, for large pictures.
            param.setCompressionQuality(0.6f);
            IIOMetadata metadata = writer.getDefaultImageMetadata(new ImageTypeSpecifier(image), param);
            IIOMetadataNode root = new IIOMetadataNode("javax_imageio_png_1.0");
            byte[] profile = origin.profile();
            if (profile != null) {
                IIOMetadataNode node = new IIOMetadataNode("iCCP");
                node.setAttribute("profileName", "profile");
                node.setAttribute("compressionMethod", "deflate");
                node.setUserObject(deflated(profile));
                root.appendChild(node);
            }
            IIOMetadataNode chunks = new IIOMetadataNode("UnknownChunks");
            ExifBlock exif = origin.notes().exif();
            if (exif != null) {
                chunks.appendChild(chunk("eXIf", exif.bytes()));
            }
            byte[] xmp = origin.notes().xmp();
            if (xmp != null) {
                chunks.appendChild(chunk("iTXt", Blocks.pngXmp(xmp)));
            }
            if (chunks.hasChildNodes()) {
                root.appendChild(chunks);
            }
            if (root.hasChildNodes()) {
                metadata.mergeTree("javax_imageio_png_1.0", root);
            }
            writer.setOutput(to);
            writer.write(null, new IIOImage(image, null, metadata), param);
        } finally {
            writer.dispose();
        }
    }

    private static IIOMetadataNode chunk(String type, byte[] content) {
        IIOMetadataNode chunk = new IIOMetadataNode("UnknownChunk");
        chunk.setAttribute("type", type);
        chunk.setUserObject(content);
        return chunk;
    }

    private static byte[] deflated(byte[] data) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try (DeflaterOutputStream deflater = new DeflaterOutputStream(out)) {
            deflater.write(data);
        }
        return out.toByteArray();
    }
}
