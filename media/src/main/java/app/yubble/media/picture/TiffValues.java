package app.yubble.media.picture;

import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;

/** The values of an EXIF entry as the arrays that the platform's TIFF writer takes, by type. */
final class TiffValues {
    private TiffValues() {}

    static Object of(ExifBlock.Entry entry) {
        ByteBuffer data = ByteBuffer.wrap(entry.data());
        int count = entry.count();
        switch (entry.type()) {
            case 2:
                String text = new String(entry.data(), StandardCharsets.UTF_8);
                int end = text.indexOf('\0');
                return new String[] {end < 0 ? text : text.substring(0, end)};
            case 3:
                char[] shorts = new char[count];
                data.asCharBuffer().get(shorts);
                return shorts;
            case 8:
                short[] signedShorts = new short[count];
                data.asShortBuffer().get(signedShorts);
                return signedShorts;
            case 4:
                long[] longs = new long[count];
                for (int i = 0; i < count; i++) {
                    longs[i] = data.getInt(4 * i) & 0xffffffffL;
                }
                return longs;
            case 9:
                int[] signedLongs = new int[count];
                data.asIntBuffer().get(signedLongs);
                return signedLongs;
            case 5:
                long[][] rationals = new long[count][2];
                for (int i = 0; i < 2 * count; i++) {
                    rationals[i / 2][i % 2] = data.getInt(4 * i) & 0xffffffffL;
                }
                return rationals;
            case 10:
                int[][] signedRationals = new int[count][2];
                for (int i = 0; i < 2 * count; i++) {
                    signedRationals[i / 2][i % 2] = data.getInt(4 * i);
                }
                return signedRationals;
            case 11:
                float[] floats = new float[count];
                data.asFloatBuffer().get(floats);
                return floats;
            case 12:
                double[] doubles = new double[count];
                data.asDoubleBuffer().get(doubles);
                return doubles;
            default:
                return entry.data();
        }
    }
}
