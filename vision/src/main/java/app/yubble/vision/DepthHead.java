package app.yubble.vision;

import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Resample;
import app.yubble.core.raster.Size;
import java.nio.FloatBuffer;

/** What the depth head takes besides the features. */
final class DepthHead {
    private static final int MATTE_SIDE = 128;

    private DepthHead() {}

    static Network.Tensor matte(Plane matte) {
        FloatBuffer samples = NetworkInput.floats((long) MATTE_SIDE * MATTE_SIDE);
        samples.put(Resample.toSize(matte, new Size(MATTE_SIDE, MATTE_SIDE)).samples());
        return new Network.Tensor(new long[] {1, 1, MATTE_SIDE, MATTE_SIDE}, samples);
    }
}
