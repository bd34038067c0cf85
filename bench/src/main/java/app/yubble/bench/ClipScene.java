package app.yubble.bench;

import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Progress;
import app.yubble.core.raster.Resample;
import app.yubble.core.raster.Size;
import app.yubble.media.clip.ClipFile;
import app.yubble.media.clip.ClipProbe;
import app.yubble.media.clip.ClipScan;
import app.yubble.media.clip.ClipSheet;
import app.yubble.media.clip.DepthClip;
import app.yubble.media.picture.PictureReader;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** A clip with exact depth of every frame and the camera's way. */
final class ClipScene {
    /** Share by which exact depth may differ where a point is found again; more is something else that moved there. */
    private static final double SAME_POINT = 0.02;

    private final String name;
    private final ClipFile clip;
    private final List<Plane> exact = new ArrayList<>();
    private final JsonNode camera;

    private ClipScene(String name, ClipFile clip, JsonNode camera) {
        this.name = name;
        this.clip = clip;
        this.camera = camera;
    }

    /**
     * @param description {@code NAME.json} with the camera, beside {@code NAME.mp4} and {@code NAME-depth.mkv}
     * @param longSide of the exact maps
     */
    static ClipScene read(Path description, int longSide, Path temporary) throws IOException {
        String name = description.getFileName().toString().replace(".json", "");
        Path film = description.resolveSibling(name + ".mp4");
        var info = ClipProbe.probe(film);
        ClipSheet sheet = ClipScan.of(
                        film,
                        info,
                        temporary.resolve(name + ".small.mp4"),
                        temporary.resolve("times"),
                        new ClipScan.Limits(100_000),
                        Progress.NONE)
                .sheet();
        ClipScene scene = new ClipScene(
                name, new ClipFile(film, sheet), JsonMapper.shared().readTree(Files.readString(description)));
        new DepthClip(PictureReader.DEFAULT)
                .read(
                        description.resolveSibling(name + "-depth.mkv"),
                        temporary.resolve("depth-times"),
                        sheet,
                        (frame, map) -> {
                            Size size = map.nearness().size().fitting(longSide);
                            scene.exact.add(Resample.pick(map.nearness(), size));
                        },
                        Progress.NONE);
        return scene;
    }

    String name() {
        return name;
    }

    ClipFile clip() {
        return clip;
    }

    int frames() {
        return exact.size();
    }

    /** Distance of nearness 1 in metres. */
    double near() {
        return camera.path("near").doubleValue();
    }

    /** How much wider the view gets with each unit of distance, for a pixel of a picture so wide. */
    double perPixel(int width) {
        return 2 * Math.tan(Math.toRadians(camera.path("angle").doubleValue() / 2)) / width;
    }

    /** Nearness of a frame. */
    Plane exact(int frame) {
        return exact.get(frame);
    }

    /** The point of the scene that is seen at a place of a frame. */
    double[] point(int frame, double x, double y) {
        Plane map = exact.get(frame);
        int at = (int) Math.round(y) * map.width() + (int) Math.round(x);
        return new View(frame, map.size()).point(x, y, map.samples()[at]);
    }

    /** Where a point of the scene is in a frame, and its nearness there. */
    double[] project(int frame, double[] point) {
        return new View(frame, exact.get(frame).size()).project(point);
    }

    /** The nearness of what is seen at a place; endless outside the frame. */
    double nearest(int frame, double x, double y) {
        Plane map = exact.get(frame);
        int px = (int) Math.round(x);
        int py = (int) Math.round(y);
        boolean inside = px >= 0 && py >= 0 && px < map.width() && py < map.height();
        return inside ? map.samples()[py * map.width() + px] : Double.POSITIVE_INFINITY;
    }

    private double[] vector(String what, int frame) {
        JsonNode own = camera.path(what).path(frame);
        return new double[] {
            own.path(0).doubleValue(), own.path(1).doubleValue(), own.path(2).doubleValue()
        };
    }

    /**
     * Where points of a frame that stand still are in the next one.
     *
     * @param x in pixels, between their centres; not a number for what moves, is hidden or lies outside
     * @param nearness that each point has there
     */
    record Next(float[] x, float[] y, float[] nearness) {
        boolean found(int i) {
            return !Float.isNaN(x[i]);
        }

        /** What a map of the next frame says at a point. */
        double of(Plane map, int i) {
            int left = Math.max(0, Math.min(map.width() - 2, (int) x[i]));
            int top = Math.max(0, Math.min(map.height() - 2, (int) y[i]));
            float fx = x[i] - left;
            float fy = y[i] - top;
            float[] s = map.samples();
            int at = top * map.width() + left;
            int below = at + map.width();
            return (1 - fy) * (s[at] + fx * (s[at + 1] - s[at])) + fy * (s[below] + fx * (s[below + 1] - s[below]));
        }
    }

    /** The way of what is seen in a frame to the next one. */
    Next next(int frame) {
        Plane now = exact.get(frame);
        Plane then = exact.get(frame + 1);
        View from = new View(frame, now.size());
        View to = new View(frame + 1, now.size());
        int count = now.samples().length;
        Next out = new Next(new float[count], new float[count], new float[count]);
        for (int y = 0, i = 0; y < now.height(); y++) {
            for (int x = 0; x < now.width(); x++, i++) {
                out.x[i] = Float.NaN;
                double nearness = now.samples()[i];
                if (nearness < 1e-3) {
                    continue;
                }
                double[] seen = to.project(from.point(x, y, nearness));
                int px = (int) Math.round(seen[0]);
                int py = (int) Math.round(seen[1]);
                if (px < 0 || py < 0 || px >= now.width() || py >= now.height()) {
                    continue;
                }
                int j = py * now.width() + px;
                if (Math.abs(then.samples()[j] / seen[2] - 1) < SAME_POINT) {
                    out.x[i] = (float) seen[0];
                    out.y[i] = (float) seen[1];
                    out.nearness[i] = (float) seen[2];
                }
            }
        }
        return out;
    }

    /** A pinhole camera that looks at a point; y is up, x to the right, z ahead. */
    private final class View {
        final double[] eye;
        final double[] ahead;
        final double[] right;
        final double[] up;
        final double perPixel;
        final Size size;

        View(int frame, Size size) {
            this.size = size;
            eye = vector("eye", frame);
            double[] target = vector("target", frame);
            ahead = unit(new double[] {target[0] - eye[0], target[1] - eye[1], target[2] - eye[2]});
            right = unit(cross(new double[] {0, 1, 0}, ahead));
            up = cross(ahead, right);
            perPixel = perPixel(size.width());
        }

        double[] point(double x, double y, double nearness) {
            double z = near() / nearness;
            double a = (x + 0.5 - size.width() / 2.0) * perPixel * z;
            double b = (size.height() / 2.0 - y - 0.5) * perPixel * z;
            double[] out = new double[3];
            for (int k = 0; k < 3; k++) {
                out[k] = eye[k] + z * ahead[k] + a * right[k] + b * up[k];
            }
            return out;
        }

        /** Place and nearness. */
        double[] project(double[] p) {
            double[] d = {p[0] - eye[0], p[1] - eye[1], p[2] - eye[2]};
            double z = dot(d, ahead);
            return new double[] {
                dot(d, right) / z / perPixel + size.width() / 2.0 - 0.5,
                size.height() / 2.0 - 0.5 - dot(d, up) / z / perPixel,
                near() / z
            };
        }
    }

    private static double dot(double[] a, double[] b) {
        return a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
    }

    private static double[] cross(double[] a, double[] b) {
        return new double[] {a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0]};
    }

    private static double[] unit(double[] v) {
        double length = Math.sqrt(dot(v, v));
        return new double[] {v[0] / length, v[1] / length, v[2] / length};
    }
}
