package app.yubble.media.picture;

import java.io.ByteArrayOutputStream;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/** Datasets of the IPTC information interchange model (IIM 4.2), and the resource blocks of a JPEG in which they lie. */
final class Iptc {
    static final byte[] RESOURCES = "Photoshop 3.0\0".getBytes(StandardCharsets.US_ASCII);

    private static final byte[] SIGNATURE = "8BIM".getBytes(StandardCharsets.US_ASCII);
    /** Of the resource that holds datasets. */
    private static final int RESOURCE = 0x0404;

    private static final int MARK = 0x1c;
    /** Mark, record, dataset and length. */
    private static final int HEAD = 5;

    private static final int APPLICATION = 2;
    /** Content location code and name, city, sublocation, state, country code and country. */
    private static final Set<Integer> PLACES = Set.of(26, 27, 90, 92, 95, 100, 101);

    private Iptc() {}

    /** The datasets in the resource blocks between two places of a file; null when there are none. */
    static byte @Nullable [] inResources(byte[] file, int from, int to) {
        ByteBuffer in = ByteBuffer.wrap(file);
        int at = from;
        while (at + 12 <= to && Arrays.equals(file, at, at + 4, SIGNATURE, 0, 4)) {
            int id = in.getShort(at + 4) & 0xffff;
            int name = (file[at + 6] & 0xff) + 1;
            int size = at + 6 + name + (name & 1);
            if (size + 4 > to) {
                return null;
            }
            int length = in.getInt(size);
            int data = size + 4;
            if (length < 0 || (long) data + length > to) {
                return null;
            }
            if (id == RESOURCE) {
                return Arrays.copyOfRange(file, data, data + length);
            }
            at = data + length + (length & 1);
        }
        return null;
    }

    /** The content of a JPEG segment that holds them. */
    static byte[] resources(byte[] datasets) {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        out.writeBytes(RESOURCES);
        out.writeBytes(SIGNATURE);
        out.writeBytes(new byte[] {RESOURCE >> 8, RESOURCE & 0xff, 0, 0});
        out.writeBytes(ByteBuffer.allocate(4).putInt(datasets.length).array());
        out.writeBytes(datasets);
        out.writeBytes(new byte[datasets.length & 1]);
        return out.toByteArray();
    }

    /** What comes after a dataset that is damaged is left out. */
    static byte @Nullable [] withoutPlace(byte[] datasets) {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        int at = 0;
        while (at + HEAD <= datasets.length && datasets[at] == MARK) {
            int length = (datasets[at + 3] & 0xff) << 8 | datasets[at + 4] & 0xff;
            int end = at + HEAD + length;
            // The highest bit says that the length itself is longer; no place has such a name.
            if (length > 0x7fff || end > datasets.length) {
                break;
            }
            if (datasets[at + 1] != APPLICATION || !PLACES.contains(datasets[at + 2] & 0xff)) {
                out.write(datasets, at, end - at);
            }
            at = end;
        }
        return out.size() == 0 ? null : out.toByteArray();
    }
}
