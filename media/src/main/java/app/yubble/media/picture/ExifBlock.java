package app.yubble.media.picture;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;

/**
 * EXIF metadata (CIPA DC-008) as the entries of its three directories: main, Exif and GPS.
 *
 * <p>Read from a TIFF structure within bounds and written anew, which leaves the thumbnail and dangling offsets behind.
 * Maker notes are not kept: their inner offsets break when they move.
 */
public final class ExifBlock {
    private static final int EXIF_POINTER = 0x8769;
    private static final int GPS_POINTER = 0x8825;
    private static final int ORIENTATION = 0x0112;
    private static final int MAKER_NOTE = 0x927c;
    private static final int INTEROPERABILITY_POINTER = 0xa005;
    private static final int COMPRESSION = 0x0103;
    private static final int OLD_JPEG = 6;
    private static final int JPEG_AT = 0x0201;
    private static final int JPEG_BYTES = 0x0202;
    private static final int PIXEL_WIDTH = 0xa002;
    private static final int PIXEL_HEIGHT = 0xa003;
    private static final int[] TYPE_BYTES = {0, 1, 1, 2, 4, 8, 1, 1, 2, 4, 8, 4, 8};
    private static final int MOST_ENTRIES = 300;
    private static final int MOST_BYTES = 60_000;
    // In the main directory only what describes the photo is kept; strips, sizes and encodings belong to the old file.
    private static final Set<Integer> MAIN_TAGS =
            Set.of(0x010d, 0x010e, 0x010f, 0x0110, 0x011a, 0x011b, 0x0128, 0x0131, 0x0132, 0x013b, 0x8298);

    /** One entry: its TIFF type, how many values, and the values in big-endian order. */
    record Entry(int type, int count, byte[] data) {}

    private final Map<Integer, Entry> main;
    private final Map<Integer, Entry> exif;
    private final Map<Integer, Entry> gps;

    private ExifBlock(Map<Integer, Entry> main, Map<Integer, Entry> exif, Map<Integer, Entry> gps) {
        this.main = main;
        this.exif = exif;
        this.gps = gps;
    }

    /** Reads a TIFF structure; empty when it is broken or holds nothing. */
    static Optional<ExifBlock> parse(byte[] tiff) {
        try {
            ByteBuffer in = ByteBuffer.wrap(tiff);
            in.order(tiff[0] == 'I' ? ByteOrder.LITTLE_ENDIAN : ByteOrder.BIG_ENDIAN);
            if (in.getShort(2) != 42) {
                return Optional.empty();
            }
            Map<Integer, Entry> all = directory(in, in.getInt(4));
            Map<Integer, Entry> exif = subdirectory(in, all.get(EXIF_POINTER));
            exif.keySet().removeAll(Set.of(MAKER_NOTE, INTEROPERABILITY_POINTER, PIXEL_WIDTH, PIXEL_HEIGHT));
            Map<Integer, Entry> gps = subdirectory(in, all.get(GPS_POINTER));
            all.keySet().retainAll(MAIN_TAGS);
            ExifBlock block = new ExifBlock(all, exif, gps);
            return all.isEmpty() && exif.isEmpty() && gps.isEmpty() ? Optional.empty() : Optional.of(block);
        } catch (IndexOutOfBoundsException broken) {
            return Optional.empty();
        }
    }

    private static Map<Integer, Entry> subdirectory(ByteBuffer in, @Nullable Entry pointer) {
        if (pointer == null || pointer.data.length != 4) {
            return new TreeMap<>();
        }
        return directory(in, ByteBuffer.wrap(pointer.data).getInt());
    }

    private static Map<Integer, Entry> directory(ByteBuffer in, int at) {
        Map<Integer, Entry> entries = new TreeMap<>();
        int count = Math.min(MOST_ENTRIES, in.getShort(at) & 0xffff);
        for (int i = 0; i < count; i++) {
            int entry = at + 2 + 12 * i;
            int type = in.getShort(entry + 2);
            int values = in.getInt(entry + 4);
            if (type < 1 || type >= TYPE_BYTES.length || values < 0 || values > MOST_BYTES) {
                continue;
            }
            int bytes = values * TYPE_BYTES[type];
            int from = bytes <= 4 ? entry + 8 : in.getInt(entry + 8);
            if (bytes > MOST_BYTES || from < 0 || from + bytes > in.capacity()) {
                continue;
            }
            entries.put(in.getShort(entry) & 0xffff, new Entry(type, values, bigEndian(in, from, bytes, type)));
        }
        return entries;
    }

    private static byte[] bigEndian(ByteBuffer in, int from, int bytes, int type) {
        byte[] data = new byte[bytes];
        in.get(from, data);
        int unit = type == 5 || type == 10 ? 4 : TYPE_BYTES[type];
        if (in.order() == ByteOrder.LITTLE_ENDIAN) {
            for (int i = 0; i + unit <= bytes; i += unit) {
                for (int j = 0; j < unit / 2; j++) {
                    byte swapped = data[i + j];
                    data[i + j] = data[i + unit - 1 - j];
                    data[i + unit - 1 - j] = swapped;
                }
            }
        }
        return data;
    }

    Map<Integer, Entry> main() {
        return main;
    }

    Map<Integer, Entry> exif() {
        return exif;
    }

    Map<Integer, Entry> gps() {
        return gps;
    }

    ExifBlock withoutPlace() {
        return new ExifBlock(main, exif, new TreeMap<>());
    }

    /** A TIFF structure, big-endian, with the orientation upright. */
    byte[] bytes() {
        return bytes(null);
    }

    /** @param thumbnail a small JPEG of the picture, or null */
    byte[] bytes(byte @Nullable [] thumbnail) {
        Map<Integer, Entry> first = new TreeMap<>(main);
        first.put(ORIENTATION, new Entry(3, 1, new byte[] {0, 1}));
        if (!exif.isEmpty()) {
            first.put(EXIF_POINTER, new Entry(4, 1, new byte[4]));
        }
        if (!gps.isEmpty()) {
            first.put(GPS_POINTER, new Entry(4, 1, new byte[4]));
        }
        int exifAt = 8 + length(first);
        int gpsAt = exifAt + (exif.isEmpty() ? 0 : length(exif));
        first.computeIfPresent(EXIF_POINTER, (tag, e) -> pointer(exifAt));
        first.computeIfPresent(GPS_POINTER, (tag, e) -> pointer(gpsAt));
        int secondAt = gpsAt + (gps.isEmpty() ? 0 : length(gps));
        Map<Integer, Entry> second = thumbnail == null ? new TreeMap<>() : thumbnailEntries(thumbnail.length, secondAt);
        int end = secondAt + (thumbnail == null ? 0 : length(second) + thumbnail.length);
        ByteBuffer out = ByteBuffer.allocate(end);
        out.put((byte) 'M').put((byte) 'M').putShort((short) 42).putInt(8);
        for (Map<Integer, Entry> directory : List.of(first, exif, gps, second)) {
            if (!directory.isEmpty()) {
                write(directory, out);
            }
        }
        if (thumbnail != null) {
            out.put(thumbnail);
            // After the main directory's entries stands where the thumbnail's begins.
            out.putInt(8 + 2 + 12 * first.size(), secondAt);
        }
        return out.array();
    }

    private static Map<Integer, Entry> thumbnailEntries(int bytes, int at) {
        Map<Integer, Entry> out = new TreeMap<>();
        out.put(COMPRESSION, new Entry(3, 1, new byte[] {0, OLD_JPEG}));
        out.put(JPEG_AT, pointer(0));
        out.put(JPEG_BYTES, pointer(bytes));
        out.put(JPEG_AT, pointer(at + length(out)));
        return out;
    }

    private static Entry pointer(int at) {
        return new Entry(4, 1, ByteBuffer.allocate(4).putInt(at).array());
    }

    private static int length(Map<Integer, Entry> directory) {
        int length = 2 + 12 * directory.size() + 4;
        for (Entry entry : directory.values()) {
            length += entry.data.length > 4 ? entry.data.length + (entry.data.length & 1) : 0;
        }
        return length;
    }

    private static void write(Map<Integer, Entry> directory, ByteBuffer out) {
        int values = out.position() + 2 + 12 * directory.size() + 4;
        List<byte[]> outside = new ArrayList<>();
        out.putShort((short) directory.size());
        for (Map.Entry<Integer, Entry> each : directory.entrySet()) {
            Entry entry = each.getValue();
            out.putShort(each.getKey().shortValue())
                    .putShort((short) entry.type)
                    .putInt(entry.count);
            if (entry.data.length <= 4) {
                out.put(entry.data).put(new byte[4 - entry.data.length]);
            } else {
                out.putInt(values);
                values += entry.data.length + (entry.data.length & 1);
                outside.add(entry.data);
            }
        }
        out.putInt(0);
        for (byte[] data : outside) {
            out.put(data).put(new byte[data.length & 1]);
        }
    }
}
