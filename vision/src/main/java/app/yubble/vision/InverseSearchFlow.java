package app.yubble.vision;

import app.yubble.core.clip.Flow;
import app.yubble.core.clip.FlowFinder;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Size;
import java.nio.ByteBuffer;
import java.nio.FloatBuffer;
import org.bytedeco.javacpp.Loader;
import org.bytedeco.opencv.global.opencv_core;
import org.bytedeco.opencv.global.opencv_video;
import org.bytedeco.opencv.opencv_core.Mat;
import org.bytedeco.opencv.opencv_video.DISOpticalFlow;

/**
 * Dense flow by inverse search: T. Kroeger, R. Timofte, D. Dai and L. Van Gool, "Fast Optical Flow using Dense Inverse Search"
 * (ECCV 2016), as OpenCV has it.
 */
public final class InverseSearchFlow implements FlowFinder {
    static {
        Loader.load(opencv_video.class);
    }

    /** An instance keeps buffers, so each thread has its own. */
    private final ThreadLocal<DISOpticalFlow> finders =
            ThreadLocal.withInitial(() -> DISOpticalFlow.create(DISOpticalFlow.PRESET_FAST));

    @Override
    public Flow between(Plane from, Plane to) {
        Size size = from.size();
        try (Mat a = bytes(from);
                Mat b = bytes(to);
                Mat found = new Mat()) {
            finders.get().calc(a, b, found);
            FloatBuffer both = found.createBuffer();
            Plane across = new Plane(size);
            Plane down = new Plane(size);
            for (int i = 0; i < across.samples().length; i++) {
                across.samples()[i] = both.get(2 * i);
                down.samples()[i] = both.get(2 * i + 1);
            }
            return new Flow(across, down);
        }
    }

    private static Mat bytes(Plane plane) {
        Mat out = new Mat(plane.height(), plane.width(), opencv_core.CV_8UC1);
        ByteBuffer to = out.createBuffer();
        byte[] row = new byte[plane.samples().length];
        for (int i = 0; i < row.length; i++) {
            row[i] = (byte) Math.round(255 * Math.max(0, Math.min(1, plane.samples()[i])));
        }
        to.put(row);
        return out;
    }
}
