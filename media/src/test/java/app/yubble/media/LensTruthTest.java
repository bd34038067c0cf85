package app.yubble.media;

import static org.assertj.core.api.Assertions.assertThat;

import app.yubble.core.depth.DepthEdges;
import app.yubble.core.depth.DepthEstimate;
import app.yubble.core.focus.DefocusField;
import app.yubble.core.focus.Gain;
import app.yubble.core.focus.SharpBand;
import app.yubble.core.lens.Disc;
import app.yubble.core.lens.Glints;
import app.yubble.core.lens.LensRender;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Progress;
import app.yubble.core.raster.Resample;
import app.yubble.core.raster.Size;
import app.yubble.media.depthfile.DepthFileReader;
import app.yubble.media.picture.PictureReader;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** The lens against pictures that a ray tracer rendered through a real aperture, with exact depth. */
class LensTruthTest {
    private static final Path DEMO = Path.of("../demo");

    @ParameterizedTest
    @ValueSource(strings = {"crossing", "dusk", "figurine"})
    void theLensComesCloseToARayTracedAperture(String name) throws IOException {
        JsonNode scene = scene(name);
        JsonNode truthInfo = scene.get("truth");
        Picture truth = picture(truthInfo.get("file").asString());
        Size size = truth.size();
        Picture full = picture(scene.get("photo").asString());
        Picture source = Resample.toSize(full, size);
        Plane map = new DepthFileReader(PictureReader.DEFAULT)
                .read(Files.readAllBytes(DEMO.resolve(scene.get("depth").asString())), full.size());
        Plane nearness = DepthEdges.follow(DepthEstimate.of(map), source, 0);
        // Nearness is nearest / z. A lens of diameter A focused at F draws a point at z with the radius
        // W A / (4 tan(angle / 2)) |1 / F - 1 / z| in pixels.
        double nearest = scene.get("nearestDistance").asDouble();
        double half = Math.tan(Math.toRadians(truthInfo.get("angle").asDouble() / 2));
        double perNearness = size.width() * truthInfo.get("apertureDiameter").asDouble() / (4 * half * nearest);
        SharpBand plane =
                SharpBand.around(nearest / truthInfo.get("focusDistance").asDouble(), 0, 0);
        Plane field = DefocusField.of(nearness, plane, Gain.EVEN, perNearness);
        Picture ours = LensRender.render(source, field, Disc.ROUND, Glints.NONE, Progress.NONE);
        double untouched = psnr(source, truth);
        double rendered = psnr(ours, truth);
        System.out.printf("%s against the truth: untouched %.1f dB, rendered %.1f dB%n", name, untouched, rendered);
        // At dusk the photo has clipped the lamps that the aperture spreads: most of what is left to gain is lost
        // there.
        assertThat(rendered).isGreaterThan(30).isGreaterThan(untouched + 1);
    }

    private static JsonNode scene(String name) throws IOException {
        for (JsonNode scene : new JsonMapper()
                .readTree(Files.readString(DEMO.resolve("manifest.json")))
                .get("scenes")) {
            if (scene.get("photo").asString().contains(name)) {
                return scene;
            }
        }
        throw new AssertionError("the manifest has no scene " + name);
    }

    private static Picture picture(String file) throws IOException {
        return PictureReader.DEFAULT.read(DEMO.resolve(file)).picture();
    }

    /** In dB on sRGB-like values (power 1 / 2.2), cut at white. */
    private static double psnr(Picture a, Picture b) {
        double sum = 0;
        for (int c = 0; c < 3; c++) {
            float[] p = a.planes().get(c).samples();
            float[] q = b.planes().get(c).samples();
            for (int i = 0; i < p.length; i++) {
                double d = Math.pow(Math.min(1, p[i]), 1 / 2.2) - Math.pow(Math.min(1, q[i]), 1 / 2.2);
                sum += d * d;
            }
        }
        return -10 * Math.log10(sum / (3.0 * a.size().pixels()));
    }
}
