package app.yubble.media.depthfile;

import app.yubble.core.raster.Plane;
import app.yubble.media.picture.JpegSegments;
import app.yubble.media.picture.PictureWriter;
import app.yubble.media.picture.XmpPacket;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.Arrays;
import java.util.Base64;
import java.util.HexFormat;

/** Stores depth in a JPEG as depth map metadata with an extended packet, as cameras do; the picture itself stays as it is. */
public final class StoredDepthWriter {
    private static final int PART = 65_000;
    /** The farthest, where the nearest is 1, of depth without a unit. */
    private static final double RELATIVE_FAR = 100;

    private StoredDepthWriter() {}

    /** Relative depth: it says what is nearer, but not how far away in metres. */
    public static byte[] store(byte[] jpeg, Plane nearness) {
        return store(jpeg, nearness, 1, RELATIVE_FAR, "relative");
    }

    /**
     * @param jpeg the photo; what its XMP says else is kept
     * @param nearness in [0,1]
     * @param nearMetres distance at nearness 1
     * @param farMetres distance at nearness 0, over {@code nearMetres}
     */
    public static byte[] store(byte[] jpeg, Plane nearness, double nearMetres, double farMetres) {
        return store(jpeg, nearness, nearMetres, farMetres, "m");
    }

    private static byte[] store(byte[] jpeg, Plane nearness, double near, double far, String units) {
        String data = Base64.getEncoder().encodeToString(png(nearness));
        byte[] extended =
                packet("xmlns:GDepth=\"http://ns.google.com/photos/1.0/depthmap/\" GDepth:Data=\"" + data + "\"");
        String identifier = md5(extended);
        byte[] main = XmpPacket.withDepth(JpegParts.xmp(jpeg, 0), identifier, near, far, units);
        ByteArrayOutputStream out = new ByteArrayOutputStream(jpeg.length + extended.length + 4096);
        int start = afterExif(jpeg);
        out.write(jpeg, 0, start);
        segment(out, JpegParts.XMP, main);
        for (int at = 0; at < extended.length; at += PART) {
            byte[] part = Arrays.copyOfRange(extended, at, Math.min(extended.length, at + PART));
            ByteBuffer head = ByteBuffer.allocate(JpegParts.EXTENDED_XMP.length + JpegParts.EXTENDED_HEAD);
            head.put(JpegParts.EXTENDED_XMP).put(identifier.getBytes(StandardCharsets.ISO_8859_1));
            head.putInt(extended.length).putInt(at);
            segment(out, head.array(), part);
        }
        int at = start;
        for (JpegSegments.Segment each : JpegSegments.of(jpeg, 0)) {
            if (each.start() >= start && isXmp(each, jpeg)) {
                out.write(jpeg, at, each.start() - at);
                at = each.to();
            }
        }
        out.write(jpeg, at, jpeg.length - at);
        return out.toByteArray();
    }

    private static boolean isXmp(JpegSegments.Segment segment, byte[] jpeg) {
        return segment.marker() == JpegSegments.APP1
                && (segment.startsWith(jpeg, JpegParts.XMP) || segment.startsWith(jpeg, JpegParts.EXTENDED_XMP));
    }

    /** EXIF stands first. */
    private static int afterExif(byte[] jpeg) {
        return JpegSegments.of(jpeg, 0).stream()
                .findFirst()
                .filter(first -> first.marker() == JpegSegments.APP1 && !isXmp(first, jpeg))
                .map(JpegSegments.Segment::to)
                .orElse(2);
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
