package app.yubble.media.picture;

import java.io.ByteArrayOutputStream;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.zip.DataFormatException;
import java.util.zip.Inflater;
import org.jspecify.annotations.Nullable;

/**
 * The profile and metadata blocks of a file, found by walking its segments.
 *
 * <p>JPEG: APP1 {@code Exif} and XMP, APP2 {@code ICC_PROFILE} in parts, APP13 with IPTC datasets; PNG: {@code iCCP}, {@code eXIf} and
 * XMP in an uncompressed text; WebP: {@code ICCP}, {@code EXIF} and {@code XMP}; TIFF: tags 34675, 700 and 33723, and the file itself
 * is the EXIF data.
 */
record Blocks(byte @Nullable [] profile, byte @Nullable [] exif, byte @Nullable [] xmp, byte @Nullable [] iptc) {
    static final Blocks NONE = new Blocks(null, null, null, null);

    private static final byte[] EXIF_HEADER = "Exif\0\0".getBytes(StandardCharsets.US_ASCII);
    private static final byte[] ICC_HEADER = "ICC_PROFILE\0".getBytes(StandardCharsets.US_ASCII);
    private static final byte[] XMP_HEADER = "http://ns.adobe.com/xap/1.0/\0".getBytes(StandardCharsets.US_ASCII);
    /** Keyword of the text, no compression, and no languages. */
    private static final byte[] XMP_TEXT = "XML:com.adobe.xmp\0\0\0\0\0".getBytes(StandardCharsets.US_ASCII);

    private static final int MOST_PROFILE_BYTES = 8 << 20;
    /** Bytes of a JPEG segment's content that leave room for its head. */
    private static final int MOST_SEGMENT = 65_000;

    private static final int APP13 = 0xed;
    private static final byte[] WEBP_HEAD = "VP8X".getBytes(StandardCharsets.US_ASCII);
    private static final byte[] WEBP_PROFILE = "ICCP".getBytes(StandardCharsets.US_ASCII);
    private static final int WEBP_HAS_PROFILE = 0x20;
    private static final Set<String> WEBP_BLOCKS = Set.of("ICCP", "EXIF", "XMP ");
    private static final int TIFF_PROFILE = 34675;
    static final int TIFF_XMP = 700;
    static final int TIFF_IPTC = 33723;

    static Blocks find(byte[] file, String format) {
        try {
            return switch (format) {
                case "JPEG" -> jpeg(file);
                case "PNG" -> png(file);
                case "WebP" -> webp(file);
                case "TIFF" -> tiff(file);
                default -> NONE;
            };
        } catch (IndexOutOfBoundsException | DataFormatException broken) {
            return NONE;
        }
    }

    private static Blocks jpeg(byte[] file) {
        byte[] exif = null;
        byte[] xmp = null;
        byte[] iptc = null;
        Map<Integer, byte[]> parts = new TreeMap<>();
        for (JpegSegments.Segment each : JpegSegments.of(file, 0)) {
            if (each.marker() == JpegSegments.APP1 && exif == null && each.startsWith(file, EXIF_HEADER)) {
                exif = Arrays.copyOfRange(file, each.from() + EXIF_HEADER.length, each.to());
            } else if (each.marker() == JpegSegments.APP1 && xmp == null && each.startsWith(file, XMP_HEADER)) {
                xmp = Arrays.copyOfRange(file, each.from() + XMP_HEADER.length, each.to());
            } else if (each.marker() == APP13 && iptc == null && each.startsWith(file, Iptc.RESOURCES)) {
                iptc = Iptc.inResources(file, each.from() + Iptc.RESOURCES.length, each.to());
            } else if (isProfile(each, file)) {
                int data = each.from() + ICC_HEADER.length;
                parts.put(file[data] & 0xff, Arrays.copyOfRange(file, data + 2, each.to()));
            }
        }
        ByteArrayOutputStream profile = new ByteArrayOutputStream();
        parts.values().forEach(profile::writeBytes);
        return new Blocks(parts.isEmpty() ? null : profile.toByteArray(), exif, xmp, iptc);
    }

    private static boolean isProfile(JpegSegments.Segment segment, byte[] file) {
        return segment.marker() == JpegSegments.APP2
                && segment.startsWith(file, ICC_HEADER)
                && segment.to() - segment.from() >= ICC_HEADER.length + 2;
    }

    /** How many components a JPEG's frame header names; 3 when there is none. */
    static int jpegComponents(byte[] file) {
        return JpegSegments.of(file, 0).stream()
                .filter(each -> each.isFrame() && each.to() - each.from() > 5)
                .findFirst()
                .map(frame -> file[frame.from() + 5] & 0xff)
                .orElse(3);
    }

    /** The same JPEG without its profile's segments. */
    static byte[] withoutJpegProfile(byte[] file) {
        ByteArrayOutputStream out = new ByteArrayOutputStream(file.length);
        out.write(file, 0, 2);
        List<JpegSegments.Segment> segments = JpegSegments.of(file, 0);
        segments.stream()
                .filter(each -> !isProfile(each, file))
                .forEach(each -> out.write(file, each.start(), each.to() - each.start()));
        int end = JpegSegments.end(segments, 0);
        out.write(file, end, file.length - end);
        return out.toByteArray();
    }

    private static boolean startsWith(byte[] file, int at, byte[] start) {
        return at + start.length <= file.length && Arrays.equals(file, at, at + start.length, start, 0, start.length);
    }

    private static Blocks png(byte[] file) throws DataFormatException {
        ByteBuffer in = ByteBuffer.wrap(file);
        byte[] exif = null;
        byte[] profile = null;
        byte[] xmp = null;
        int at = 8;
        while (at + 12 <= file.length) {
            int length = in.getInt(at);
            String type = new String(file, at + 4, 4, StandardCharsets.US_ASCII);
            if (length < 0 || at + 12L + length > file.length) {
                break;
            }
            if (type.equals("eXIf")) {
                exif = Arrays.copyOfRange(file, at + 8, at + 8 + length);
            } else if (type.equals("iTXt") && startsWith(file, at + 8, XMP_TEXT)) {
                xmp = Arrays.copyOfRange(file, at + 8 + XMP_TEXT.length, at + 8 + length);
            } else if (type.equals("iCCP")) {
                int name = at + 8;
                while (file[name] != 0) {
                    name++;
                }
                profile = inflated(file, name + 2, at + 8 + length);
            }
            at += 12 + length;
        }
        return new Blocks(profile, exif, xmp, null);
    }

    private static byte[] inflated(byte[] file, int from, int to) throws DataFormatException {
        Inflater inflater = new Inflater();
        try {
            inflater.setInput(file, from, to - from);
            ByteArrayOutputStream out = new ByteArrayOutputStream();
            byte[] buffer = new byte[8192];
            while (!inflater.finished() && out.size() < MOST_PROFILE_BYTES) {
                int count = inflater.inflate(buffer);
                if (count == 0) {
                    throw new DataFormatException("the profile ends early");
                }
                out.write(buffer, 0, count);
            }
            return out.toByteArray();
        } finally {
            inflater.end();
        }
    }

    /** How long a RIFF file says it is, in bytes. */
    static long riffLength(byte[] file) {
        return 8 + (ByteBuffer.wrap(file).order(ByteOrder.LITTLE_ENDIAN).getInt(4) & 0xffffffffL);
    }

    private static Blocks webp(byte[] file) {
        ByteBuffer in = ByteBuffer.wrap(file).order(ByteOrder.LITTLE_ENDIAN);
        Map<String, byte[]> found = new HashMap<>();
        int at = 12;
        while (at + 8 <= file.length) {
            String type = new String(file, at, 4, StandardCharsets.US_ASCII);
            int length = in.getInt(at + 4);
            if (length < 0 || at + 8L + length > file.length) {
                break;
            }
            if (WEBP_BLOCKS.contains(type)) {
                found.put(type, Arrays.copyOfRange(file, at + 8, at + 8 + length));
            }
            at += 8 + length + (length & 1);
        }
        byte[] exif = found.get("EXIF");
        if (exif != null && startsWith(exif, 0, EXIF_HEADER)) {
            exif = Arrays.copyOfRange(exif, EXIF_HEADER.length, exif.length);
        }
        return new Blocks(found.get("ICCP"), exif, found.get("XMP "), null);
    }

    /** The same WebP with its profile under a name that readers skip. */
    static byte[] withoutWebpProfile(byte[] file) {
        byte[] out = file.clone();
        ByteBuffer in = ByteBuffer.wrap(out).order(ByteOrder.LITTLE_ENDIAN);
        int at = 12;
        while (at + 8 <= out.length && in.getInt(at + 4) >= 0) {
            if (startsWith(out, at, WEBP_HEAD) && at + 8 < out.length) {
                out[at + 8] &= (byte) ~WEBP_HAS_PROFILE;
            } else if (startsWith(out, at, WEBP_PROFILE)) {
                out[at] = 'x';
            }
            long next = at + 8L + in.getInt(at + 4) + (in.getInt(at + 4) & 1);
            at = (int) Math.min(next, out.length);
        }
        return out;
    }

    private static Blocks tiff(byte[] file) {
        ByteBuffer in = ByteBuffer.wrap(file);
        in.order(file[0] == 'I' ? ByteOrder.LITTLE_ENDIAN : ByteOrder.BIG_ENDIAN);
        int directory = in.getInt(4);
        int count = in.getShort(directory) & 0xffff;
        Map<Integer, byte[]> found = new HashMap<>();
        for (int i = 0; i < count; i++) {
            int entry = directory + 2 + 12 * i;
            int tag = in.getShort(entry) & 0xffff;
            if (tag == TIFF_PROFILE || tag == TIFF_XMP || tag == TIFF_IPTC) {
                // Datasets are sometimes said to be whole numbers of four bytes.
                int unit = in.getShort(entry + 2) == 4 ? 4 : 1;
                long length = (long) unit * in.getInt(entry + 4);
                int from = in.getInt(entry + 8);
                if (length > 4 && length <= MOST_PROFILE_BYTES && from > 0 && from + length <= file.length) {
                    found.put(tag, Arrays.copyOfRange(file, from, (int) (from + length)));
                }
            }
        }
        return new Blocks(found.get(TIFF_PROFILE), file, found.get(TIFF_XMP), found.get(TIFF_IPTC));
    }

    /** The content of a PNG's text that holds XMP. */
    static byte[] pngXmp(byte[] xmp) {
        byte[] out = Arrays.copyOf(XMP_TEXT, XMP_TEXT.length + xmp.length);
        System.arraycopy(xmp, 0, out, XMP_TEXT.length, xmp.length);
        return out;
    }

    /** JPEG segments that carry a profile and metadata, to stand right after the start of the file. */
    static byte[] jpegSegments(Blocks blocks) {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        byte[] exif = blocks.exif();
        byte[] xmp = blocks.xmp();
        byte[] iptc = blocks.iptc();
        byte[] profile = blocks.profile();
        if (exif != null && exif.length <= MOST_SEGMENT) {
            segment(out, JpegSegments.APP1, EXIF_HEADER, exif);
        }
        if (xmp != null && xmp.length <= MOST_SEGMENT) {
            segment(out, JpegSegments.APP1, XMP_HEADER, xmp);
        }
        if (iptc != null && iptc.length <= MOST_SEGMENT) {
            segment(out, APP13, new byte[0], Iptc.resources(iptc));
        }
        if (profile != null) {
            int part = MOST_SEGMENT;
            int parts = (profile.length + part - 1) / part;
            for (int i = 0; i < parts; i++) {
                byte[] header = Arrays.copyOf(ICC_HEADER, ICC_HEADER.length + 2);
                header[ICC_HEADER.length] = (byte) (i + 1);
                header[ICC_HEADER.length + 1] = (byte) parts;
                segment(
                        out,
                        JpegSegments.APP2,
                        header,
                        Arrays.copyOfRange(profile, i * part, Math.min(profile.length, (i + 1) * part)));
            }
        }
        return out.toByteArray();
    }

    private static void segment(ByteArrayOutputStream out, int marker, byte[] header, byte[] data) {
        int length = 2 + header.length + data.length;
        out.write(0xff);
        out.write(marker);
        out.write(length >> 8);
        out.write(length);
        out.writeBytes(header);
        out.writeBytes(data);
    }
}
