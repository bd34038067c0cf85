package app.yubble.vision;

import app.yubble.core.follow.GreyFrame;
import app.yubble.core.follow.PointMotion;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Region;
import app.yubble.core.raster.Size;
import java.nio.FloatBuffer;
import java.util.Arrays;
import org.bytedeco.javacpp.FloatPointer;
import org.bytedeco.javacpp.Loader;
import org.bytedeco.opencv.global.opencv_core;
import org.bytedeco.opencv.global.opencv_imgproc;
import org.bytedeco.opencv.global.opencv_video;
import org.bytedeco.opencv.opencv_core.Mat;
import org.bytedeco.opencv.opencv_core.TermCriteria;
import org.jspecify.annotations.Nullable;

/**
 * Points in pyramids (J.-Y. Bouguet, "Pyramidal Implementation of the Affine Lucas Kanade Feature Tracker", 2001) and correlation with
 * a patch, as OpenCV has them. Only the part of a frame that points can reach is looked at.
 */
public final class LucasKanade implements PointMotion {
    static {
        Loader.load(opencv_imgproc.class);
        Loader.load(opencv_video.class);
    }

    /** Pixels along the side of what is compared around a point. */
    private static final int WINDOW = 15;
    /** Sizes of a pyramid beside the full one: movements of 60 pixels beside what is expected are found. */
    private static final int LEVELS = 3;
    /** Pixels around points that are looked at. */
    private static final int MARGIN = 72;
    /** Steps on each level. */
    private static final int STEPS = 20;
    /** Pixels; a step below it ends a level. */
    private static final double STILL = 0.01;
    /** What there must be around a point, as OpenCV counts it; its own default. */
    private static final double LEAST_STRUCTURE = 1e-4;

    @Override
    public float[] moved(GreyFrame from, GreyFrame to, float[] points, float[] expected) {
        Region part = around(from.size(), points, expected);
        float[] out = new float[points.length];
        Arrays.fill(out, Float.NaN);
        if (part == null) {
            return out;
        }
        try (Mat a = bytes(from, part);
                Mat b = bytes(to, part);
                Mat before = pairs(points, part);
                Mat after = pairs(expected, part);
                Mat status = new Mat();
                Mat error = new Mat();
                org.bytedeco.opencv.opencv_core.Size window = new org.bytedeco.opencv.opencv_core.Size(WINDOW, WINDOW);
                TermCriteria until = new TermCriteria(TermCriteria.COUNT | TermCriteria.EPS, STEPS, STILL)) {
            opencv_video.calcOpticalFlowPyrLK(
                    a,
                    b,
                    before,
                    after,
                    status,
                    error,
                    window,
                    LEVELS,
                    until,
                    opencv_video.OPTFLOW_USE_INITIAL_FLOW,
                    LEAST_STRUCTURE);
            FloatBuffer found = after.createBuffer();
            for (int i = 0; i < out.length / 2; i++) {
                if (status.ptr(i).get() != 0) {
                    out[2 * i] = found.get(2 * i) + part.x();
                    out[2 * i + 1] = found.get(2 * i + 1) + part.y();
                }
            }
        }
        return out;
    }

    /** What points and their surroundings cover; null when none of them lies in the frame. */
    private static @Nullable Region around(Size size, float[] points, float[] expected) {
        double left = Double.MAX_VALUE;
        double top = Double.MAX_VALUE;
        double right = -Double.MAX_VALUE;
        double bottom = -Double.MAX_VALUE;
        for (float[] each : new float[][] {points, expected}) {
            for (int i = 0; i < each.length; i += 2) {
                if (Float.isFinite(each[i]) && Float.isFinite(each[i + 1])) {
                    left = Math.min(left, each[i]);
                    right = Math.max(right, each[i]);
                    top = Math.min(top, each[i + 1]);
                    bottom = Math.max(bottom, each[i + 1]);
                }
            }
        }
        int x0 = (int) Math.max(0, left - MARGIN);
        int y0 = (int) Math.max(0, top - MARGIN);
        int x1 = (int) Math.min(size.width(), right + MARGIN + 1);
        int y1 = (int) Math.min(size.height(), bottom + MARGIN + 1);
        return x1 - x0 < WINDOW || y1 - y0 < WINDOW ? null : new Region(x0, y0, x1 - x0, y1 - y0);
    }

    private static Mat bytes(GreyFrame frame, Region part) {
        Mat out = new Mat(part.height(), part.width(), opencv_core.CV_8UC1);
        for (int y = 0; y < part.height(); y++) {
            out.ptr(y).put(frame.samples(), (part.y() + y) * frame.size().width() + part.x(), part.width());
        }
        return out;
    }

    private static Mat pairs(float[] points, Region part) {
        Mat out = new Mat(points.length / 2, 1, opencv_core.CV_32FC2);
        float[] shifted = new float[points.length];
        for (int i = 0; i < points.length; i += 2) {
            // What was not found must not become a number by chance: far outside nothing is found.
            shifted[i] = Float.isFinite(points[i]) ? points[i] - part.x() : -10_000;
            shifted[i + 1] = Float.isFinite(points[i + 1]) ? points[i + 1] - part.y() : -10_000;
        }
        new FloatPointer(out.data()).put(shifted);
        return out;
    }

    @Override
    public Plane likeness(GreyFrame picture, GreyFrame patch) {
        try (Mat in = bytes(picture, Region.all(picture.size()));
                Mat of = bytes(patch, Region.all(patch.size()));
                Mat found = new Mat()) {
            opencv_imgproc.matchTemplate(in, of, found, opencv_imgproc.TM_CCOEFF_NORMED);
            Plane out = new Plane(new Size(found.cols(), found.rows()));
            FloatBuffer values = found.createBuffer();
            values.get(out.samples());
            return out;
        }
    }
}
