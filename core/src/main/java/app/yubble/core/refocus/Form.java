package app.yubble.core.refocus;

import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import java.nio.ByteBuffer;
import java.nio.FloatBuffer;
import java.util.function.Function;

/**
 * How a result is written so that reading it gives the very same.
 *
 * @param write everything, from the buffer's position to its limit
 */
record Form<T>(Function<T, ByteBuffer> write, Function<ByteBuffer, T> read) {
    /** What comes before the samples. */
    private static final int SIDES = 2 * Integer.BYTES;

    static final Form<Plane> PLANE = new Form<>(
            plane -> {
                ByteBuffer out = sized(plane, 1);
                out.asFloatBuffer().put(plane.samples());
                return out.rewind();
            },
            in -> {
                int width = in.getInt();
                int height = in.getInt();
                return plane(width, height, in.asFloatBuffer());
            });

    static final Form<Picture> PICTURE = new Form<>(
            picture -> {
                ByteBuffer out = sized(picture.red(), picture.planes().size());
                FloatBuffer samples = out.asFloatBuffer();
                picture.planes().forEach(each -> samples.put(each.samples()));
                return out.rewind();
            },
            in -> {
                int width = in.getInt();
                int height = in.getInt();
                FloatBuffer samples = in.asFloatBuffer();
                return new Picture(
                        plane(width, height, samples), plane(width, height, samples), plane(width, height, samples));
            });

    /** Begun with the sides. */
    private static ByteBuffer sized(Plane like, int planes) {
        return ByteBuffer.allocate(Math.toIntExact(SIDES + planes * like.bytes()))
                .putInt(like.width())
                .putInt(like.height());
    }

    private static Plane plane(int width, int height, FloatBuffer samples) {
        Plane out = new Plane(width, height);
        samples.get(out.samples());
        return out;
    }
}
