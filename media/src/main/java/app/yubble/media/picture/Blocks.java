package app.yubble.media.picture;

import java.io.ByteArrayOutputStream;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.zip.DataFormatException;
import java.util.zip.Inflater;
import org.jspecify.annotations.Nullable;

/**
 * The profile and metadata blocks of a file, found by walking its segments.
 *
 * <p>JPEG: APP1 {@code Exif} and APP2 {@code ICC_PROFILE} in parts; PNG: {@code iCCP} and {@code eXIf}; WebP:
 * {@code ICCP} and {@code EXIF}; TIFF: tag 34675, and the file itself is the metadata.
 */
record Blocks(byte @Nullable [] profile, byte @Nullable [] exif) {
    static final Blocks NONE = new Blocks(null, null);

    private static final byte[] EXIF_HEADER = "Exif\0\0".getBytes(StandardCharsets.US_ASCII);
    private static final byte[] ICC_HEADER = "ICC_PROFILE\0".getBytes(StandardCharsets.US_ASCII);
    private static final int MOST_PROFILE_BYTES = 8 << 20;

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
        Map<Integer, byte[]> parts = new TreeMap<>();
        for (JpegSegments.Segment each : JpegSegments.of(file, 0)) {
            if (each.marker() == JpegSegments.APP1 && exif == null && each.startsWith(file, EXIF_HEADER)) {
                exif = Arrays.copyOfRange(file, each.from() + EXIF_HEADER.length, each.to());
            } else if (isProfile(each, file)) {
                int data = each.from() + ICC_HEADER.length;
                parts.put(file[data] & 0xff, Arrays.copyOfRange(file, data + 2, each.to()));
            }
        }
        ByteArrayOutputStream profile = new ByteArrayOutputStream();
        parts.values().forEach(profile::writeBytes);
        return new Blocks(parts.isEmpty() ? null : profile.toByteArray(), exif);
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
        int at = 8;
        while (at + 12 <= file.length) {
            int length = in.getInt(at);
            String type = new String(file, at + 4, 4, StandardCharsets.US_ASCII);
            if (length < 0 || at + 12L + length > file.length || type.equals("IDAT") && exif != null) {
                break;
            }
            if (type.equals("eXIf")) {
                exif = Arrays.copyOfRange(file, at + 8, at + 8 + length);
            } else if (type.equals("iCCP")) {
                int name = at + 8;
                while (file[name] != 0) {
                    name++;
                }
                profile = inflated(file, name + 2, at + 8 + length);
            }
            at += 12 + length;
        }
        return new Blocks(profile, exif);
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
        byte[] exif = null;
        byte[] profile = null;
        int at = 12;
        while (at + 8 <= file.length) {
            String type = new String(file, at, 4, StandardCharsets.US_ASCII);
            int length = in.getInt(at + 4);
            if (length < 0 || at + 8L + length > file.length) {
                break;
            }
            byte[] data = type.equals("ICCP") || type.equals("EXIF")
                    ? Arrays.copyOfRange(file, at + 8, at + 8 + length)
                    : null;
            if (type.equals("ICCP")) {
                profile = data;
            } else if (data != null) {
                exif = startsWith(data, 0, EXIF_HEADER) ? Arrays.copyOfRange(data, 6, data.length) : data;
            }
            at += 8 + length + (length & 1);
        }
        return new Blocks(profile, exif);
    }

    private static Blocks tiff(byte[] file) {
        ByteBuffer in = ByteBuffer.wrap(file);
        in.order(file[0] == 'I' ? ByteOrder.LITTLE_ENDIAN : ByteOrder.BIG_ENDIAN);
        int directory = in.getInt(4);
        int count = in.getShort(directory) & 0xffff;
        byte[] profile = null;
        for (int i = 0; i < count; i++) {
            int entry = directory + 2 + 12 * i;
            if ((in.getShort(entry) & 0xffff) == 34675) {
                int length = in.getInt(entry + 4);
                int from = in.getInt(entry + 8);
                if (length > 0 && length <= MOST_PROFILE_BYTES && from > 0 && (long) from + length <= file.length) {
                    profile = Arrays.copyOfRange(file, from, from + length);
                }
            }
        }
        return new Blocks(profile, file);
    }

    /** JPEG segments that carry a profile and metadata, to stand right after the start of the file. */
    static byte[] jpegSegments(byte @Nullable [] profile, byte @Nullable [] exif) {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        if (exif != null && exif.length <= 65_000) {
            segment(out, 0xe1, EXIF_HEADER, exif);
        }
        if (profile != null) {
            int part = 65_000;
            int parts = (profile.length + part - 1) / part;
            for (int i = 0; i < parts; i++) {
                byte[] header = Arrays.copyOf(ICC_HEADER, ICC_HEADER.length + 2);
                header[ICC_HEADER.length] = (byte) (i + 1);
                header[ICC_HEADER.length + 1] = (byte) parts;
                segment(
                        out,
                        0xe2,
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
