package app.yubble.core.refocus;

import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.WritableByteChannel;
import java.util.function.Function;

/**
 * How a result is written so that reading it gives the very same.
 *
 * @param read from a buffer of the order {@link PackedSamples#ORDER}
 */
record Form<T>(Writer<T> writer, Function<ByteBuffer, T> read) {
    static final Form<Plane> PLANE = new Form<>(
            (plane, out) -> {
                writeSides(plane, out);
                PackedSamples.write(plane.samples(), out);
            },
            in -> plane(in.getInt(), in.getInt(), in));

    static final Form<Picture> PICTURE = new Form<>(
            (picture, out) -> {
                writeSides(picture.red(), out);
                for (Plane each : picture.planes()) {
                    PackedSamples.write(each.samples(), out);
                }
            },
            in -> {
                int width = in.getInt();
                int height = in.getInt();
                return new Picture(plane(width, height, in), plane(width, height, in), plane(width, height, in));
            });

    /** Writes a result, numbers in {@link PackedSamples#ORDER}. */
    @FunctionalInterface
    interface Writer<T> {
        void write(T result, WritableByteChannel out) throws IOException;
    }

    /** Of what has few bytes. */
    static <T> Form<T> of(Function<T, ByteBuffer> write, Function<ByteBuffer, T> read) {
        return new Form<>((result, out) -> out.write(write.apply(result)), read);
    }

    T read(ByteBuffer from) {
        return read.apply(from.order(PackedSamples.ORDER));
    }

    StageStore.Written written(T result) {
        return out -> writer.write(result, out);
    }

    private static void writeSides(Plane of, WritableByteChannel out) throws IOException {
        out.write(ByteBuffer.allocate(2 * Integer.BYTES)
                .order(PackedSamples.ORDER)
                .putInt(of.width())
                .putInt(of.height())
                .flip());
    }

    private static Plane plane(int width, int height, ByteBuffer in) {
        Plane out = new Plane(width, height);
        PackedSamples.read(in, out.samples());
        return out;
    }
}
