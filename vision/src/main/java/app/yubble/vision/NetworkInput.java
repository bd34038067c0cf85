package app.yubble.vision;

import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Resample;
import app.yubble.core.raster.Size;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.FloatBuffer;

/** Pictures as networks take them: stretched to their input, coded as sRGB, one plane per channel. */
final class NetworkInput {
    private NetworkInput() {}

    /** {@code (rgb8 - mean) / deviation} for each channel, in the order red, green, blue. */
    record Scaling(float[] mean, float[] deviation) {
        /** (rgb8 - 128) / 256. */
        static final Scaling CENTRED = same(128, 256);

        static Scaling same(float mean, float deviation) {
            return new Scaling(new float[] {mean, mean, mean}, new float[] {deviation, deviation, deviation});
        }
    }

    static Network.Tensor planar(Picture picture, Size size, Scaling scaling) {
        FloatBuffer out = floats(3 * size.pixels());
        for (int c = 0; c < 3; c++) {
            Plane plane = Resample.toSize(picture.planes().get(c), size);
            for (float sample : plane.samples()) {
                out.put((255 * coded(sample) - scaling.mean()[c]) / scaling.deviation()[c]);
            }
        }
        return new Network.Tensor(new long[] {1, 3, size.height(), size.width()}, out);
    }

    static FloatBuffer floats(long count) {
        return ByteBuffer.allocateDirect(Math.toIntExact(count * Float.BYTES))
                .order(ByteOrder.nativeOrder())
                .asFloatBuffer();
    }

    /** The sRGB transfer curve (IEC 61966-2-1), clamped to [0,1]. */
    static float coded(float linear) {
        double v = Math.max(0, Math.min(1, linear));
        return (float) (v <= 0.0031308 ? 12.92 * v : 1.055 * Math.pow(v, 1 / 2.4) - 0.055);
    }

    /** A tensor of one channel as a plane. */
    static Plane plane(Network.Tensor tensor) {
        Plane plane = new Plane(tensor.width(), tensor.height());
        tensor.samples().rewind();
        tensor.samples().get(plane.samples());
        return plane;
    }
}
