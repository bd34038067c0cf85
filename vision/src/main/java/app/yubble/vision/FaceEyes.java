package app.yubble.vision;

import app.yubble.core.follow.EyeFinder;
import app.yubble.core.follow.GreyFrame;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Progress;
import app.yubble.core.raster.Size;
import app.yubble.core.subject.Face;
import app.yubble.core.subject.FaceFinder;
import java.util.List;

/** The eyes of the faces that a finder of faces finds in the brightness of a frame: colour tells it little. */
public final class FaceEyes implements EyeFinder {
    private static final float[] LINEAR = linear();

    private final FaceFinder finder;

    public FaceEyes(FaceFinder finder) {
        this.finder = finder;
    }

    @Override
    public List<Eyes> find(GreyFrame frame) {
        Plane grey = new Plane(frame.size());
        for (int i = 0; i < frame.samples().length; i++) {
            grey.samples()[i] = LINEAR[frame.samples()[i] & 0xff];
        }
        return finder.find(new Picture(grey, grey, grey), Progress.NONE).stream()
                .map(each -> eyes(each, frame.size()))
                .toList();
    }

    private static Eyes eyes(Face face, Size size) {
        return new Eyes(at(face.one(), size), at(face.other(), size), face.width() * size.width());
    }

    private static At at(Face.Point point, Size size) {
        return new At(point.x() * size.width() - 0.5, point.y() * size.height() - 0.5);
    }

    private static float[] linear() {
        float[] out = new float[256];
        for (int code = 0; code < out.length; code++) {
            double v = code / 255.0;
            out[code] = (float) (v <= 0.04045 ? v / 12.92 : Math.pow((v + 0.055) / 1.055, 2.4));
        }
        return out;
    }
}
