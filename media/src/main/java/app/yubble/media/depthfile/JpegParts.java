package app.yubble.media.depthfile;

import app.yubble.media.picture.JpegSegments;
import app.yubble.media.picture.JpegSegments.Segment;
import java.io.ByteArrayOutputStream;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.HexFormat;
import java.util.Map;
import java.util.TreeMap;

/** What segments of a JPEG hold beside its own picture. */
final class JpegParts {
    static final byte[] XMP = "http://ns.adobe.com/xap/1.0/\0".getBytes(StandardCharsets.ISO_8859_1);
    static final byte[] EXTENDED_XMP = "http://ns.adobe.com/xmp/extension/\0".getBytes(StandardCharsets.ISO_8859_1);
    static final byte[] MULTI_PICTURE = "MPF\0".getBytes(StandardCharsets.ISO_8859_1);

    /** Identifier of the extended packet, its whole length, and where this part belongs. */
    static final int EXTENDED_HEAD = 32 + 4 + 4;

    private static final int MOST_XMP_BYTES = 96 << 20;

    private JpegParts() {}

    /** The XMP packet of the picture at {@code start}, empty when there is none. */
    static byte[] xmp(byte[] file, int start) {
        return JpegSegments.of(file, start).stream()
                .filter(segment -> segment.marker() == JpegSegments.APP1 && segment.startsWith(file, XMP))
                .findFirst()
                .map(segment -> Arrays.copyOfRange(file, segment.from() + XMP.length, segment.to()))
                .orElse(new byte[0]);
    }

    /**
     * The extended XMP packet with this identifier, put together from its parts (XMP specification, part 3, 1.1.3.1);
     * empty when there is none.
     *
     * @throws IllegalArgumentException when parts are missing or do not fit together
     */
    static byte[] extendedXmp(byte[] file, String identifier) {
        Map<Long, byte[]> parts = new TreeMap<>();
        long whole = -1;
        for (Segment segment : JpegSegments.of(file, 0)) {
            int head = segment.from() + EXTENDED_XMP.length;
            if (segment.marker() != JpegSegments.APP1
                    || !segment.startsWith(file, EXTENDED_XMP)
                    || head + EXTENDED_HEAD > segment.to()
                    || !identifier.equals(new String(file, head, 32, StandardCharsets.ISO_8859_1))) {
                continue;
            }
            whole = number(file, head + 32);
            parts.put(number(file, head + 36), Arrays.copyOfRange(file, head + EXTENDED_HEAD, segment.to()));
        }
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        for (Map.Entry<Long, byte[]> part : parts.entrySet()) {
            if (part.getKey() != out.size() || whole > MOST_XMP_BYTES) {
                throw new IllegalArgumentException("its extended metadata is incomplete or over the limit of 96 MB");
            }
            out.writeBytes(part.getValue());
        }
        if (whole >= 0 && out.size() != whole) {
            throw new IllegalArgumentException(
                    "its extended metadata is incomplete: " + out.size() + " bytes of " + whole + " are there");
        }
        return out.toByteArray();
    }

    private static long number(byte[] file, int at) {
        return Long.parseLong(HexFormat.of().formatHex(file, at, at + 4), 16);
    }
}
