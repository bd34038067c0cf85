package app.yubble.vision;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import app.yubble.core.depth.DepthEstimate;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Progress;
import app.yubble.core.raster.Size;
import app.yubble.core.subject.Quality;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.util.HexFormat;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class DepthEnginesTest {
    @TempDir
    Path folder;

    private ModelFolder models;

    @BeforeEach
    void make() throws IOException {
        models = new ModelFolder(folder);
        Files.createDirectories(models.depthNetworks());
    }

    private void put(String name, TinyModel model, String input, String output) throws Exception {
        put(name, model.build().toByteArray(), input, output);
    }

    private void put(String name, byte[] onnx, String input, String output) throws Exception {
        Files.write(models.depthNetworks().resolve(name + ".onnx"), onnx);
        String hash =
                HexFormat.of().formatHex(MessageDigest.getInstance("SHA-256").digest(onnx));
        describe(name, hash, input, output);
    }

    private void describe(String name, String hash, String input, String output) throws IOException {
        Files.writeString(models.depthNetworks().resolve(name + ".json"), """
                {"format": "yubble-depth-network", "version": 1, "name": "%1$s", "about": "a test", "licence": "MIT",
                 "file": "%1$s.onnx", "sha256": "%2$s", "input": {%3$s}, "output": {%4$s}}
                """.formatted(name, hash, input, output));
    }

    private static final String PLANAR = "\"name\": \"picture\", \"width\": 32, \"height\": 24";
    private static final String NEARNESS = "\"name\": \"depth\", \"meaning\": \"nearness\"";

    private String problem() {
        return new DepthEngines(models)
                .installed().stream()
                        .map(DepthEngines.Installed::problem)
                        .filter(text -> !text.isEmpty())
                        .reduce("", String::concat);
    }

    /** Red grows to the right. */
    private static Picture picture() {
        Picture picture = Picture.blank(new Size(64, 48));
        for (int i = 0; i < 64 * 48; i++) {
            picture.red().samples()[i] = i % 64 / 63f;
        }
        return picture;
    }

    private Plane nearness(String name) {
        DepthEstimate estimate =
                new DepthEngines(models).named(name).orElseThrow().estimate(picture(), Quality.BEST, Progress.NONE);
        assertThat(estimate.nearness().size().hasShapeOf(new Size(64, 48))).isTrue();
        return estimate.nearness();
    }

    @Test
    void withoutNetworksDepthComesFromTheLayout() {
        DepthEngines engines = new DepthEngines(models);
        assertThat(engines.hasLearned()).isFalse();
        assertThat(engines.automatic().name()).isEqualTo("layout");
        assertThat(engines.names()).containsExactly("layout", "ramp");
    }

    @Test
    void aDescribedNetworkIsLoadedAndRun() throws Exception {
        put("red-near", TinyModel.redIsNear(), PLANAR, NEARNESS);
        assertThat(problem()).isEmpty();
        Plane found = nearness("red-near");
        assertThat(found.at(0, 10)).isCloseTo(0, within(0.02f));
        assertThat(found.at(found.width() - 1, 10)).isCloseTo(1, within(0.02f));
        assertThat(found.at(10, 10)).isLessThan(found.at(20, 10));
    }

    @Test
    void depthAndLogarithmsOfDepthAreTurnedIntoNearness() throws Exception {
        put(
                "red-far",
                TinyModel.redIsNear(),
                PLANAR + ", \"mean\": [-50, 0, 0]",
                "\"name\": \"depth\", \"meaning\": \"depth\"");
        put("red-log", TinyModel.redIsNear(), PLANAR, "\"name\": \"depth\", \"meaning\": \"log depth\"");
        for (String name : new String[] {"red-far", "red-log"}) {
            Plane found = nearness(name);
            assertThat(found.at(0, 10)).isCloseTo(1, within(0.02f));
            assertThat(found.at(found.width() - 1, 10)).isCloseTo(0, within(0.02f));
        }
    }

    @Test
    void channelsMayComeLast() throws Exception {
        TinyModel last = TinyModel.taking("picture", 1, 24, 32, 3)
                .node("Transpose", "picture", "planar", TinyModel.numbers("perm", 0, 3, 1, 2))
                .weights("w", new long[] {1, 3, 1, 1}, 1, 0, 0)
                .node("Conv", "planar w", "answer")
                .node("Transpose", "answer", "depth", TinyModel.numbers("perm", 0, 2, 3, 1))
                .answering("depth", 1, 24, 32, 1);
        put("last", last, PLANAR + ", \"layout\": \"nhwc\"", NEARNESS);
        assertThat(problem()).isEmpty();
        assertThat(nearness("last").at(31, 10)).isCloseTo(1, within(0.02f));
    }

    @Test
    void whatDoesNotFitIsToldAndNotOffered() throws Exception {
        put("wide", TinyModel.redIsNear(), "\"name\": \"picture\", \"width\": 48, \"height\": 24", NEARNESS);
        assertThat(problem()).contains("wide.json").contains("1x3x24x32").contains("1x3x24x48");
        assertThat(new DepthEngines(models).named("wide")).isEmpty();
    }

    @Test
    void openSizesAreRefused() throws Exception {
        TinyModel open = TinyModel.taking("picture", 1, 3, -1, -1)
                .weights("w", new long[] {1, 3, 1, 1}, 1, 0, 0)
                .node("Conv", "picture w", "depth")
                .answering("depth", 1, 1, -1, -1);
        put("open", open, PLANAR, NEARNESS);
        assertThat(problem()).contains("1x3xopenxopen").contains("fixed size");
    }

    @Test
    void aFileThatIsNoNetworkIsRefused() throws Exception {
        put("text", "this is no network".getBytes(java.nio.charset.StandardCharsets.UTF_8), PLANAR, NEARNESS);
        assertThat(problem()).contains("text.onnx cannot be loaded");
    }

    @Test
    void anotherHashIsRefused() throws Exception {
        put("red-near", TinyModel.redIsNear(), PLANAR, NEARNESS);
        describe("red-near", "0".repeat(64), PLANAR, NEARNESS);
        assertThat(problem()).contains("SHA-256");
    }

    @Test
    void aMissingFileAndAWrongOutputAreTold() throws Exception {
        describe("gone", "0".repeat(64), PLANAR, NEARNESS);
        assertThat(problem()).contains("gone.onnx is not there");
        Files.delete(models.depthNetworks().resolve("gone.json"));
        put("odd", TinyModel.redIsNear(), PLANAR, "\"name\": \"elsewhere\", \"meaning\": \"nearness\"");
        assertThat(problem()).contains("elsewhere");
    }

    @Test
    void allFaultsOfADescriptorAreToldAtOnce() throws IOException {
        Files.writeString(models.depthNetworks().resolve("bad.json"), """
                {"format": "yubble-depth-network", "version": 2, "name": "../x", "file": "../../etc/passwd",
                 "input": {"name": "a", "width": 3, "height": 24, "layout": "diagonal"},
                 "output": {"name": "b", "meaning": "colour"}}
                """);
        assertThat(problem())
                .contains("version")
                .contains("name")
                .contains("licence")
                .contains("plain file name")
                .contains("diagonal")
                .contains("colour");
        Files.writeString(models.depthNetworks().resolve("bad.json"), "no json");
        assertThat(problem()).contains("bad.json").contains("not JSON");
    }
}
