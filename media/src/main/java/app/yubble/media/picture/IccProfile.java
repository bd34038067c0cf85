package app.yubble.media.picture;

import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;

/** A profile that describes red, green and blue by a matrix and a curve each (ICC.1:2022, 8.3), read and made. */
final class IccProfile {
    private static final int MOST_TAGS = 200;
    private static final int HEADER = 128;
    /** Where the colour space of the values stands. */
    private static final int SPACE = 16;

    private static final int TABLE_ENTRY = 12;
    /** Type and four reserved bytes. */
    private static final int TAG_HEAD = 8;
    /** Numbers have sixteen bits after the point. */
    private static final double ONE = 65536;
    /** The white of the space that profiles meet in (7.2.16). */
    static final double[] D50 = {0.9642, 1, 0.8249};

    private final ByteBuffer bytes;
    private final Map<Integer, Integer> offsets;

    private IccProfile(ByteBuffer bytes, Map<Integer, Integer> offsets) {
        this.bytes = bytes;
        this.offsets = offsets;
    }

    /** Empty when it is no profile of red, green and blue. */
    static Optional<IccProfile> of(byte[] profile) {
        try {
            ByteBuffer icc = ByteBuffer.wrap(profile);
            if (profile.length < HEADER + 4 || icc.getInt(SPACE) != tag("RGB ")) {
                return Optional.empty();
            }
            Map<Integer, Integer> offsets = new LinkedHashMap<>();
            int count = Math.min(MOST_TAGS, icc.getInt(HEADER));
            for (int i = 0; i < count; i++) {
                int entry = HEADER + 4 + TABLE_ENTRY * i;
                offsets.put(icc.getInt(entry), icc.getInt(entry + 4));
            }
            return Optional.of(new IccProfile(icc, offsets));
        } catch (IndexOutOfBoundsException broken) {
            return Optional.empty();
        }
    }

    static int tag(String name) {
        return ByteBuffer.wrap(name.getBytes(StandardCharsets.US_ASCII)).getInt();
    }

    ByteBuffer bytes() {
        return bytes;
    }

    Optional<Integer> offset(String name) {
        return Optional.ofNullable(offsets.get(tag(name)));
    }

    /** From linear red, green and blue to XYZ under {@link #D50}; empty when the profile does not say. */
    Optional<Matrix3> toXyz() {
        double[] values = new double[9];
        for (int c = 0; c < 3; c++) {
            Optional<Integer> at = offset("rgb".charAt(c) + "XYZ");
            if (at.isEmpty()) {
                return Optional.empty();
            }
            for (int i = 0; i < 3; i++) {
                values[3 * i + c] = bytes.getInt(at.get() + TAG_HEAD + 4 * i) / ONE;
            }
        }
        return Optional.of(new Matrix3(values));
    }

    /**
     * Makes one.
     *
     * @param name as programs show it
     * @param toXyz from linear light to XYZ under {@link #D50}
     * @param adaptation from the space's own white to {@link #D50}
     * @param curve exponent and the numbers a to d of a curve of the fourth kind (10.18)
     */
    static byte[] made(String name, Matrix3 toXyz, Matrix3 adaptation, double[] curve) {
        Map<String, byte[]> tags = new LinkedHashMap<>();
        tags.put("desc", text(name));
        tags.put("cprt", text("No copyright, use freely"));
        tags.put("wtpt", numbers("XYZ ", D50));
        tags.put("chad", numbers("sf32", adaptation.values()));
        for (int c = 0; c < 3; c++) {
            tags.put("rgb".charAt(c) + "XYZ", numbers("XYZ ", toXyz.column(c)));
        }
        byte[] shared = curve(curve);
        for (int c = 0; c < 3; c++) {
            tags.put("rgb".charAt(c) + "TRC", shared);
        }
        int table = HEADER + 4 + TABLE_ENTRY * tags.size();
        int length =
                table + tags.values().stream().mapToInt(data -> data.length).sum() - 2 * shared.length;
        ByteBuffer out = ByteBuffer.allocate(length);
        out.putInt(length).putInt(0).putInt(0x04400000);
        out.putInt(tag("mntr")).putInt(tag("RGB ")).putInt(tag("XYZ "));
        // A day, so that the same profile is the same file.
        out.putShort((short) 2026).putShort((short) 1).putShort((short) 1).position(36);
        out.putInt(tag("acsp")).position(68);
        for (double each : D50) {
            out.putInt((int) Math.round(each * ONE));
        }
        out.position(HEADER);
        out.putInt(tags.size());
        int at = table;
        int sharedAt = -1;
        for (Map.Entry<String, byte[]> each : tags.entrySet()) {
            byte[] data = each.getValue();
            boolean again = data == shared && sharedAt >= 0;
            out.putInt(tag(each.getKey())).putInt(again ? sharedAt : at).putInt(data.length);
            if (!again) {
                out.duplicate().position(at).put(data);
                sharedAt = data == shared ? at : sharedAt;
                at += data.length;
            }
        }
        return out.array();
    }

    private static byte[] text(String text) {
        byte[] letters = text.getBytes(StandardCharsets.UTF_16BE);
        ByteBuffer out = ByteBuffer.allocate((28 + letters.length + 3) / 4 * 4);
        out.putInt(tag("mluc")).putInt(0).putInt(1).putInt(12);
        return out.putInt(tag("enUS"))
                .putInt(letters.length)
                .putInt(28)
                .put(letters)
                .array();
    }

    private static byte[] numbers(String type, double[] values) {
        ByteBuffer out = ByteBuffer.allocate(TAG_HEAD + 4 * values.length)
                .putInt(tag(type))
                .putInt(0);
        for (double each : values) {
            out.putInt((int) Math.round(each * ONE));
        }
        return out.array();
    }

    private static byte[] curve(double[] values) {
        ByteBuffer out = ByteBuffer.allocate(TAG_HEAD + 4 + 4 * values.length)
                .putInt(tag("para"))
                .putInt(0);
        out.putShort((short) 3).putShort((short) 0);
        for (double each : values) {
            out.putInt((int) Math.round(each * ONE));
        }
        return out.array();
    }
}
