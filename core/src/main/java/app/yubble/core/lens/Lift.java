package app.yubble.core.lens;

import app.yubble.core.raster.Bands;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Size;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.util.Arrays;
import org.jspecify.annotations.Nullable;

/**
 * How many times the light of each pixel is added to it where it is blurred. Few pixels of a photo have any, so only the squares of
 * pixels in which one has take memory; a number for each would be a sixth of all that a large picture needs.
 */
public final class Lift {
    /** Pixels of a side. */
    private static final int SQUARE = 64;

    private final Size size;
    private final int across;
    /** Row by row; null where nothing is lifted. Those at the right and lower edge are whole too. */
    private final float[] @Nullable [] squares;

    private Lift(Size size) {
        this.size = size;
        across = (size.width() + SQUARE - 1) / SQUARE;
        squares = new float[across * ((size.height() + SQUARE - 1) / SQUARE)][];
    }

    /** @param lifts of all pixels, as {@link Glints#lift} returns them */
    public static Lift of(Plane lifts) {
        Lift out = new Lift(lifts.size());
        Bands.ofPieces(out.squares.length, square -> out.squares[square] = out.taken(lifts, square));
        return out;
    }

    private float @Nullable [] taken(Plane lifts, int square) {
        int left = square % across * SQUARE;
        int top = square / across * SQUARE;
        int width = Math.min(SQUARE, size.width() - left);
        float[] out = null;
        for (int y = top; y < Math.min(size.height(), top + SQUARE); y++) {
            int row = y * size.width() + left;
            for (int x = 0; x < width; x++) {
                if (lifts.samples()[row + x] != 0) {
                    out = out == null ? new float[SQUARE * SQUARE] : out;
                    out[(y - top) * SQUARE + x] = lifts.samples()[row + x];
                }
            }
        }
        return out;
    }

    public Size size() {
        return size;
    }

    /** Memory held. */
    public long bytes() {
        return Arrays.stream(squares).filter(each -> each != null).count() * SQUARE * SQUARE * Float.BYTES;
    }

    /** All of it, for {@link #read(ByteBuffer)}; little-endian. */
    public ByteBuffer written() {
        ByteBuffer out = ByteBuffer.allocate(
                        Math.toIntExact(2L * Integer.BYTES + (long) squares.length * Byte.BYTES + bytes()))
                .order(ByteOrder.LITTLE_ENDIAN);
        out.putInt(size.width()).putInt(size.height());
        for (float @Nullable [] each : squares) {
            out.put((byte) (each == null ? 0 : 1));
            if (each != null) {
                out.asFloatBuffer().put(each);
                out.position(out.position() + each.length * Float.BYTES);
            }
        }
        return out.rewind();
    }

    public static Lift read(ByteBuffer from) {
        Lift out = new Lift(new Size(from.getInt(), from.getInt()));
        for (int i = 0; i < out.squares.length; i++) {
            if (from.get() != 0) {
                float[] square = new float[SQUARE * SQUARE];
                from.asFloatBuffer().get(square);
                from.position(from.position() + square.length * Float.BYTES);
                out.squares[i] = square;
            }
        }
        return out;
    }

    /** The lifts of {@code count} pixels from (x, y) on, side by side. */
    void read(int x, int y, int count, float[] to) {
        int first = y / SQUARE * across;
        int inSquare = y % SQUARE * SQUARE;
        for (int done = 0; done < count; ) {
            int at = x + done;
            int more = Math.min(count - done, SQUARE - at % SQUARE);
            float[] square = squares[first + at / SQUARE];
            if (square == null) {
                Arrays.fill(to, done, done + more, 0);
            } else {
                System.arraycopy(square, inSquare + at % SQUARE, to, done, more);
            }
            done += more;
        }
    }
}
