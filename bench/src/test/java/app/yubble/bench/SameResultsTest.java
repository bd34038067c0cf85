package app.yubble.bench;

import static org.assertj.core.api.Assertions.assertThat;

import app.yubble.core.depth.DepthEstimate;
import app.yubble.core.depth.DepthTrim;
import app.yubble.core.depth.LayoutEstimator;
import app.yubble.core.focus.Gain;
import app.yubble.core.focus.SharpBand;
import app.yubble.core.lens.Aperture;
import app.yubble.core.lens.Disc;
import app.yubble.core.lens.Glints;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Progress;
import app.yubble.core.raster.Region;
import app.yubble.core.raster.Resample;
import app.yubble.core.raster.Size;
import app.yubble.core.recipe.DepthChoice;
import app.yubble.core.recipe.Recipe;
import app.yubble.core.refocus.Photo;
import app.yubble.core.refocus.RefocusLine;
import app.yubble.core.refocus.StageCache;
import app.yubble.core.refocus.View;
import app.yubble.core.subject.Quality;
import app.yubble.core.touchup.PickOut;
import app.yubble.core.touchup.Span;
import app.yubble.core.touchup.Stroke;
import app.yubble.core.touchup.Touchup;
import app.yubble.media.depthfile.CameraDepth;
import app.yubble.media.depthfile.CameraDepthReader;
import app.yubble.media.depthfile.DepthFileReader;
import app.yubble.media.picture.PictureReader;
import java.awt.image.BufferedImage;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import javax.imageio.ImageIO;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/**
 * The results of many recipes on the demo photos stay what they are: each is held, to one step of an 8-bit file, against the
 * one that was made when it was last looked at and found right.
 *
 * <p>When a change is meant to alter pictures, run with {@code -Dyubble.renew=true}, look at what has changed, and commit it
 * with the change.
 */
class SameResultsTest {
    private static final Path DEMO = Path.of("../demo");
    private static final Path RESULTS = Path.of("src/test/resources/results");
    private static final int SIDE = 240;
    private static final int ZOOMED = 1500;

    /** One recipe and, unless the whole picture is looked at, the place that is looked at more closely. */
    private record Look(Recipe recipe, boolean zoomed) {}

    private record Scene(Picture full, DepthEstimate map) implements Photo {
        @Override
        public String id() {
            return "photo";
        }

        @Override
        public String depthId(DepthChoice.Source source) {
            return source.name();
        }

        @Override
        public Size size() {
            return full.size();
        }

        @Override
        public Picture picture(Size size) {
            return Resample.toSize(full, size);
        }

        @Override
        public DepthEstimate depth(DepthChoice.Source source) {
            return source == DepthChoice.Source.ESTIMATED
                    ? new LayoutEstimator()
                            .estimate(Resample.toSize(full, full.size().fitting(512)), Quality.BEST, Progress.NONE)
                    : map;
        }
    }

    private static Scene photo(String name) throws IOException {
        Path file = DEMO.resolve("photos/" + name + ".jpg");
        Picture full = PictureReader.DEFAULT.read(file).picture();
        Path depth = DEMO.resolve("truth/" + name + "-depth.png");
        Plane map = Files.exists(depth)
                ? new DepthFileReader(PictureReader.DEFAULT).read(Files.readAllBytes(depth), full.size())
                : new CameraDepthReader(PictureReader.DEFAULT)
                        .read(Files.readAllBytes(file), full.size())
                        .map(CameraDepth::nearness)
                        .orElseThrow();
        return new Scene(full, DepthEstimate.of(map));
    }

    private static Stroke line(double size, double cling, boolean erases, double... places) {
        float[] points = new float[places.length / 2 * Stroke.VALUES];
        for (int i = 0; i < places.length / 2; i++) {
            points[i * Stroke.VALUES] = (float) places[2 * i];
            points[i * Stroke.VALUES + 1] = (float) places[2 * i + 1];
            points[i * Stroke.VALUES + 2] = 1;
        }
        Stroke.Brush brush = Stroke.Brush.of(size).withCling(cling).withSoftness(0.4);
        return new Stroke(erases ? brush.erasing() : brush, points);
    }

    private static Touchup touchup(String id, Touchup.Action action, double strength, Stroke... strokes) {
        return Touchup.of(id, action, strength, 0.6, strokes);
    }

    private static Map<String, Look> looks() {
        Recipe plain = Recipe.INITIAL
                .withDepth(DepthChoice.of(DepthChoice.Source.FILE))
                .withBand(SharpBand.around(0.6, 0.12, 0.06))
                .withAperture(Aperture.DEFAULT.withFree(60));
        Touchup focus = touchup("a", Touchup.Action.FOCUS, 1, line(0.12, 0.7, false, 0.2, 0.4, 0.35, 0.5));
        Touchup match = touchup("b", Touchup.Action.MATCH, 0.8, line(0.2, 0, false, 0.7, 0.3, 0.8, 0.6));
        Touchup blur = touchup("c", Touchup.Action.BLUR, 0.4, line(0.15, 0.5, false, 0.45, 0.5, 0.55, 0.75));
        Touchup inFront =
                touchup("d", Touchup.Action.BLUR, -0.3, line(0.1, 0, false, 0.1, 0.8), line(0.05, 0, true, 0.1, 0.8));
        Touchup reveal = touchup("e", Touchup.Action.REVEAL, 0.9, line(0.2, 0, false, 0.3, 0.3, 0.6, 0.2));
        Touchup around = new Touchup(
                "f",
                "",
                Touchup.Action.FOCUS,
                0.7,
                0.6,
                true,
                true,
                List.of(line(0.4, 0, false, 0.4, 0.4, 0.6, 0.6)),
                Touchup.Start.EMPTY,
                new Touchup.Rim(0.01, 0.02),
                Span.ALL);
        Touchup object = new Touchup(
                "g",
                "",
                Touchup.Action.FOCUS,
                1,
                0.6,
                true,
                false,
                List.of(),
                new Touchup.Start(
                        new PickOut(
                                0.25,
                                0.2,
                                0.5,
                                0.7,
                                List.of(
                                        line(0.03, 0, false, 0.45, 0.45, 0.5, 0.6),
                                        line(0.03, 0, true, 0.28, 0.25, 0.3, 0.4))),
                        null),
                Touchup.Rim.PLAIN,
                Span.ALL);
        SharpBand near = SharpBand.around(0.95, 0.1, 0.05);
        SharpBand far = SharpBand.around(0.1, 0.1, 0.03);
        Aperture lens = Aperture.DEFAULT.withLens(85, 36, 1.5).withFNumber(1.2);
        DepthTrim trim = new DepthTrim(true, 0.1, 0.9, 0.3, 0.5, 0.4);
        Map<String, Look> out = new LinkedHashMap<>();
        out.put("middle", new Look(plain, false));
        out.put("near", new Look(plain.withBand(near), false));
        out.put("near-close", new Look(plain.withBand(near), true));
        out.put("far", new Look(plain.withBand(far), false));
        out.put("far-close", new Look(plain.withBand(far), true));
        out.put("lens", new Look(plain.withBand(SharpBand.around(0.7, 0, 0)).withAperture(lens), false));
        out.put(
                "blades",
                new Look(plain.withDisc(Disc.bladed(6, 0.2, 20).withRim(1)).withGlints(Glints.of(0.9)), false));
        out.put(
                "squeezed",
                new Look(
                        plain.withBand(far)
                                .withDisc(Disc.ROUND
                                        .withRim(-0.5)
                                        .withHollow(0.4)
                                        .withSqueeze(0.8)
                                        .withStretch(1.4)),
                        false));
        out.put("tilted", new Look(plain.withBand(plain.band().tilted(0.3, -0.2)), false));
        out.put("trimmed", new Look(plain.withDepth(plain.depth().withSnap(0.5).withTrim(trim)), false));
        out.put("painted", new Look(plain.withTouchups(List.of(focus, match, blur, inFront)), false));
        out.put("painted-close", new Look(plain.withTouchups(List.of(focus, match, blur, inFront)), true));
        out.put("revealed", new Look(plain.withTouchups(List.of(reveal, around)).withOpacity(0.7), false));
        out.put("picked-out", new Look(plain.withBand(near).withTouchups(List.of(object)), false));
        out.put(
                "painted-only",
                new Look(
                        plain.withTouchups(List.of(blur))
                                .withBand(SharpBand.EVERYTHING)
                                .withGain(new Gain(0.5, 2)),
                        false));
        out.put("estimated", new Look(plain.withDepth(DepthChoice.ESTIMATE), false));
        return out;
    }

    private static BufferedImage rendered(Scene photo, Look look) {
        Size size = photo.size().fitting(look.zoomed() ? ZOOMED : SIDE);
        Region region = look.zoomed()
                ? new Region(size.width() * 2 / 5, size.height() * 2 / 5, SIDE, SIDE * 2 / 3)
                : Region.all(size);
        RefocusLine line = new RefocusLine(StageCache.keepingAll());
        Picture out = line.render(photo, look.recipe(), new View(size, region), Progress.NONE);
        BufferedImage image = new BufferedImage(out.width(), out.height(), BufferedImage.TYPE_INT_RGB);
        for (int y = 0; y < out.height(); y++) {
            for (int x = 0; x < out.width(); x++) {
                image.setRGB(
                        x,
                        y,
                        coded(out.red().at(x, y)) << 16
                                | coded(out.green().at(x, y)) << 8
                                | coded(out.blue().at(x, y)));
            }
        }
        return image;
    }

    /** As sRGB codes it, in 0 to 255. */
    private static int coded(float light) {
        double limited = Math.max(0, Math.min(1, light));
        double code = limited <= 0.0031308 ? 12.92 * limited : 1.055 * Math.pow(limited, 1 / 2.4) - 0.055;
        return (int) Math.round(255 * code);
    }

    @ParameterizedTest
    @ValueSource(strings = {"crossing", "dog", "dusk", "figurine"})
    void everyRecipeGivesThePictureThatItGave(String name) throws IOException {
        Scene photo = photo(name);
        for (Map.Entry<String, Look> look : looks().entrySet()) {
            BufferedImage now = rendered(photo, look.getValue());
            Path file = RESULTS.resolve(name + "-" + look.getKey() + ".png");
            if (Boolean.getBoolean("yubble.renew")) {
                ImageIO.write(now, "png", file.toFile());
                continue;
            }
            BufferedImage before = ImageIO.read(file.toFile());
            assertThat(now.getWidth()).isEqualTo(before.getWidth());
            assertThat(now.getHeight()).isEqualTo(before.getHeight());
            assertThat(mostApart(before, now))
                    .as("%s of %s", look.getKey(), name)
                    .isLessThanOrEqualTo(1);
        }
    }

    private static int mostApart(BufferedImage a, BufferedImage b) {
        int most = 0;
        for (int y = 0; y < a.getHeight(); y++) {
            for (int x = 0; x < a.getWidth(); x++) {
                for (int shift = 0; shift <= 16; shift += 8) {
                    most = Math.max(most, Math.abs((a.getRGB(x, y) >> shift & 255) - (b.getRGB(x, y) >> shift & 255)));
                }
            }
        }
        return most;
    }
}
