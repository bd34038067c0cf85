package app.yubble.bench;

import app.yubble.core.depth.DepthEdges;
import app.yubble.core.depth.DepthEstimate;
import app.yubble.core.focus.DefocusField;
import app.yubble.core.focus.Gain;
import app.yubble.core.focus.SharpBand;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.media.depthfile.DepthFileReader;
import app.yubble.media.depthfile.ScenePictures;
import app.yubble.media.picture.PictureReader;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/**
 * A scene of {@code demo/lens}: through a pinhole, in unclipped linear light, and through real apertures.
 *
 * @param nearness nearest / distance, exact, one ray a pixel
 */
record TruthScene(String name, Picture source, Plane nearness, double nearest, double angle, List<Shot> shots) {
    private static final int BAND = 24;
    private static final double EDGE = 0.02;

    /** One aperture, in metres. */
    record Shot(double focus, double diameter, Picture truth) {}

    /** All scenes whose files are there. */
    static List<TruthScene> all(Path folder) throws IOException {
        List<TruthScene> scenes = new ArrayList<>();
        for (JsonNode scene : new JsonMapper()
                .readTree(Files.readString(folder.resolve("scenes.json")))
                .get("scenes")) {
            scenes.add(read(folder, scene));
        }
        return scenes;
    }

    private static TruthScene read(Path folder, JsonNode scene) throws IOException {
        String name = scene.get("name").asString();
        Picture source = picture(folder.resolve(name + ".exr"));
        Plane map = new DepthFileReader(PictureReader.DEFAULT)
                .read(Files.readAllBytes(folder.resolve(name + "-depth.png")), source.size());
        List<Shot> shots = new ArrayList<>();
        for (JsonNode focus : scene.get("focus")) {
            for (JsonNode diameter : scene.get("diameters")) {
                Path truth = folder.resolve(name + "-" + focus.asString() + "-" + diameter.asString() + ".exr");
                if (Files.exists(truth)) {
                    shots.add(new Shot(focus.asDouble(), diameter.asDouble(), picture(truth)));
                }
            }
        }
        return new TruthScene(
                name,
                source,
                DepthEdges.follow(DepthEstimate.of(map), source, 0),
                scene.get("nearest").asDouble(),
                scene.get("angle").asDouble(),
                shots);
    }

    private static Picture picture(Path file) throws IOException {
        return ScenePictures.read(Files.readAllBytes(file));
    }

    /**
     * Signed blur radius of every pixel: a lens of diameter A focused at F draws a point at z with the radius
     * W A / (4 tan(angle / 2)) |1 / F - 1 / z| in pixels.
     */
    Plane field(Shot shot) {
        double half = Math.tan(Math.toRadians(angle / 2));
        double perNearness = source.width() * shot.diameter() / (4 * half * nearest);
        return DefocusField.of(nearness, SharpBand.around(nearest / shot.focus(), 0, 0), Gain.EVEN, perNearness);
    }

    /** Pixels within 24 of a depth edge. */
    boolean[] nearEdges() {
        int width = source.width();
        int height = source.height();
        float[] z = nearness.samples();
        boolean[] marked = new boolean[z.length];
        for (int y = 0; y < height - 1; y++) {
            for (int x = 0; x < width - 1; x++) {
                int i = y * width + x;
                if (Math.abs(z[i + 1] - z[i]) > EDGE || Math.abs(z[i + width] - z[i]) > EDGE) {
                    for (int py = Math.max(0, y - BAND); py <= Math.min(height - 1, y + BAND); py++) {
                        for (int px = Math.max(0, x - BAND); px <= Math.min(width - 1, x + BAND); px++) {
                            marked[py * width + px] = true;
                        }
                    }
                }
            }
        }
        return marked;
    }
}
