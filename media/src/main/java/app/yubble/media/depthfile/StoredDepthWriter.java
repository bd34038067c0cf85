package app.yubble.media.depthfile;

import app.yubble.core.raster.Plane;
import app.yubble.media.picture.PictureWriter;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.Base64;
import java.util.HexFormat;
import java.util.Locale;

/** Stores depth in a JPEG as depth map metadata with an extended packet, as cameras do; the picture itself stays as it is. */
public final class StoredDepthWriter {
    private static final int PART = 65_000;

    private StoredDepthWriter() {}

    /**
     * @param jpeg the photo, which must hold no XMP yet
     * @param nearness in [0,1]
     * @param nearMetres distance at nearness 1
     * @param farMetres distance at nearness 0, over {@code nearMetres}
     */
    public static byte[] store(byte[] jpeg, Plane nearness, double nearMetres, double farMetres) {
        String data = Base64.getEncoder().encodeToString(png(nearness));
        byte[] extended =
                packet("xmlns:GDepth=\"http://ns.google.com/photos/1.0/depthmap/\" GDepth:Data=\"" + data + "\"");
        String identifier = md5(extended);
        byte[] main = packet(String.format(
                Locale.ROOT,
                "xmlns:GDepth=\"http://ns.google.com/photos/1.0/depthmap/\" xmlns:xmpNote=\"http://ns.adobe.com/xmp/note/\""
                        + " xmpNote:HasExtendedXMP=\"%s\" GDepth:Format=\"RangeInverse\" GDepth:Near=\"%.4f\""
                        + " GDepth:Far=\"%.4f\" GDepth:Units=\"m\" GDepth:Mime=\"image/png\"",
                identifier,
                nearMetres,
                farMetres));
        ByteArrayOutputStream out = new ByteArrayOutputStream(jpeg.length + extended.length + 4096);
        out.write(jpeg, 0, 2);
        segment(out, JpegParts.XMP, main);
        for (int at = 0; at < extended.length; at += PART) {
            byte[] part = java.util.Arrays.copyOfRange(extended, at, Math.min(extended.length, at + PART));
            ByteBuffer head = ByteBuffer.allocate(JpegParts.EXTENDED_XMP.length + JpegParts.EXTENDED_HEAD);
            head.put(JpegParts.EXTENDED_XMP).put(identifier.getBytes(StandardCharsets.ISO_8859_1));
            head.putInt(extended.length).putInt(at);
            segment(out, head.array(), part);
        }
        out.write(jpeg, 2, jpeg.length - 2);
        return out.toByteArray();
    }

    // Near is 0 in this metadata.
    private static byte[] png(Plane nearness) {
        Plane stored = new Plane(nearness.size());
        for (int i = 0; i < stored.samples().length; i++) {
            stored.samples()[i] = 1 - nearness.samples()[i];
        }
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try {
            PictureWriter.writeGrey(stored, out);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return out.toByteArray();
    }

    private static byte[] packet(String attributes) {
        return ("<x:xmpmeta xmlns:x=\"adobe:ns:meta/\"><rdf:RDF xmlns:rdf=\"http://www.w3.org/1999/02/22-rdf-syntax-ns#\">"
                        + "<rdf:Description rdf:about=\"\" " + attributes + "/></rdf:RDF></x:xmpmeta>")
                .getBytes(StandardCharsets.UTF_8);
    }

    private static String md5(byte[] bytes) {
        try {
            return HexFormat.of()
                    .withUpperCase()
                    .formatHex(MessageDigest.getInstance("MD5").digest(bytes));
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException("every Java platform has MD5", e);
        }
    }

    private static void segment(ByteArrayOutputStream out, byte[] head, byte[] content) {
        int length = 2 + head.length + content.length;
        out.write(0xff);
        out.write(0xe1);
        out.write(length >> 8);
        out.write(length);
        out.writeBytes(head);
        out.writeBytes(content);
    }
}
