package app.yubble.media.picture;

import java.awt.image.RenderedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.zip.DeflaterOutputStream;
import javax.imageio.IIOImage;
import javax.imageio.ImageIO;
import javax.imageio.ImageTypeSpecifier;
import javax.imageio.ImageWriteParam;
import javax.imageio.ImageWriter;
import javax.imageio.metadata.IIOMetadata;
import javax.imageio.metadata.IIOMetadataNode;
import javax.imageio.stream.ImageOutputStream;
import org.jspecify.annotations.Nullable;

/** Writes PNG with profile, EXIF and XMP. */
public final class PngWriter {
    /** What a profile is called in the file. */
    private static final String PROFILE = "profile";

    private PngWriter() {}

    /** A part of the file beside the pixels. */
    record Chunk(String type, byte[] content) {}

    public static void write(RenderedImage image, Origin origin, OutputStream out) throws IOException {
        byte[] profile = origin.profile();
        List<Chunk> notes = notes(origin);
        if (!DeepPngWriter.takes(image)) {
            write(image, profile, notes, out);
            return;
        }
        List<Chunk> all = new ArrayList<>(notes);
        if (profile != null) {
            all.add(0, new Chunk("iCCP", named(deflated(profile))));
        }
        DeepPngWriter.write(image, all, out);
    }

    private static List<Chunk> notes(Origin origin) {
        List<Chunk> out = new ArrayList<>();
        ExifBlock exif = origin.notes().exif();
        if (exif != null) {
            out.add(new Chunk("eXIf", exif.bytes()));
        }
        byte[] xmp = origin.notes().xmp();
        if (xmp != null) {
            out.add(new Chunk("iTXt", Blocks.pngXmp(xmp)));
        }
        return out;
    }

    /** A profile's name, which ends with a zero, and the method: deflate. */
    private static byte[] named(byte[] deflated) {
        byte[] name = (PROFILE + "\0\0").getBytes(StandardCharsets.US_ASCII);
        byte[] out = Arrays.copyOf(name, name.length + deflated.length);
        System.arraycopy(deflated, 0, out, name.length, deflated.length);
        return out;
    }

    private static void write(RenderedImage image, byte @Nullable [] profile, List<Chunk> notes, OutputStream out)
            throws IOException {
        ImageWriter writer = PictureWriter.writer("com.sun.imageio.plugins.png.PNGImageWriter", "png");
        try (ImageOutputStream to = ImageIO.createImageOutputStream(out)) {
            ImageWriteParam param = writer.getDefaultWriteParam();
            param.setCompressionMode(ImageWriteParam.MODE_EXPLICIT);
            // 0 is the strongest and slowest, 1 stores; this is deflate at a low level, for large pictures.
            param.setCompressionQuality(0.6f);
            IIOMetadata metadata = writer.getDefaultImageMetadata(new ImageTypeSpecifier(image), param);
            IIOMetadataNode root = new IIOMetadataNode("javax_imageio_png_1.0");
            if (profile != null) {
                IIOMetadataNode node = new IIOMetadataNode("iCCP");
                node.setAttribute("profileName", PROFILE);
                node.setAttribute("compressionMethod", "deflate");
                node.setUserObject(deflated(profile));
                root.appendChild(node);
            }
            IIOMetadataNode chunks = new IIOMetadataNode("UnknownChunks");
            for (Chunk each : notes) {
                IIOMetadataNode chunk = new IIOMetadataNode("UnknownChunk");
                chunk.setAttribute("type", each.type());
                chunk.setUserObject(each.content());
                chunks.appendChild(chunk);
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

    private static byte[] deflated(byte[] data) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try (DeflaterOutputStream deflater = new DeflaterOutputStream(out)) {
            deflater.write(data);
        }
        return out.toByteArray();
    }
}
