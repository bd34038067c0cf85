package app.yubble.media;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.catchThrowableOfType;
import static org.assertj.core.api.Assertions.within;

import app.yubble.core.depth.DepthShapeException;
import app.yubble.core.depth.DepthTrim;
import app.yubble.core.focus.Gain;
import app.yubble.core.focus.SharpBand;
import app.yubble.core.lens.Aperture;
import app.yubble.core.lens.Disc;
import app.yubble.core.lens.Glints;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Size;
import app.yubble.core.recipe.DepthChoice;
import app.yubble.core.recipe.Recipe;
import app.yubble.core.touchup.PickOut;
import app.yubble.core.touchup.Stroke;
import app.yubble.core.touchup.Touchup;
import app.yubble.media.depthfile.DepthFileReader;
import app.yubble.media.picture.PictureReader;
import app.yubble.media.picture.PictureWriter;
import app.yubble.media.picture.UnreadablePictureException;
import app.yubble.media.recipe.BadRecipeException;
import app.yubble.media.recipe.RecipeJson;
import app.yubble.media.recipe.RecipePieces;
import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Supplier;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.Test;

class RecipeAndDepthFilesTest {
    @Test
    void aRecipeComesBackAsItWasWritten() {
        Recipe recipe = new Recipe(
                new DepthChoice(DepthChoice.Source.FILE, 0.3, new DepthTrim(true, 0.1, 0.9, 0.4, -0.2, 0.5)),
                List.of(new Touchup(
                        "a",
                        "left ear",
                        Touchup.Action.BLUR,
                        -0.4,
                        0.25,
                        false,
                        true,
                        List.of(
                                new Stroke(
                                        new Stroke.Brush(
                                                true, 0.03, 0.5, 0.2, 0.7, Stroke.Edges.BOTH, Stroke.Pressure.BUILD_UP),
                                        0.25f,
                                        -0.5f,
                                        1,
                                        0.75f,
                                        0.125f,
                                        0.5f),
                                new Stroke(Stroke.Brush.of(0.5), 0.5f, 0.5f, 1)),
                        new Touchup.Start(
                                new PickOut(
                                        0.1,
                                        0.2,
                                        0.5,
                                        0.25,
                                        List.of(new Stroke(Stroke.Brush.of(0.01).erasing(), 0.25f, 0.5f, 1))),
                                null),
                        new Touchup.Rim(-0.01, 0.02))),
                new SharpBand(0.7, 0.55, 0.02, 0.1, 0.2, -0.1),
                new Aperture(Aperture.Mode.FREE, 1.4, 85, 23.5, 1.75, 62),
                new Gain(0.5, 1.5),
                new Disc(7, 0.4, 12, -0.3, 0.2, 0.5, 1.4),
                new Glints(0.6, 0.7),
                0.8);
        assertThat(RecipeJson.read(RecipeJson.write(recipe))).isEqualTo(recipe);
    }

    @Test
    void whatIsMissingHasItsDefault() {
        assertThat(RecipeJson.read("{\"format\":\"yubble-recipe\",\"version\":1}"))
                .isEqualTo(Recipe.INITIAL);
    }

    @Test
    void anUnknownVersionIsRefusedByNumber() {
        assertThatThrownBy(() -> RecipeJson.read("{\"format\":\"yubble-recipe\",\"version\":7}"))
                .isInstanceOf(BadRecipeException.class)
                .hasMessageContaining("version 7");
        assertThatThrownBy(() -> RecipeJson.read("{}")).hasMessageContaining("not a recipe");
        assertThatThrownBy(() -> RecipeJson.read("{\"format\":")).hasMessageContaining("not valid JSON");
        assertThatThrownBy(() -> RecipeJson.read("{\"format\":\"yubble-recipe\",\"version\":1,\"blurriness\":3}"))
                .hasMessageContaining("blurriness");
    }

    @Test
    void allFaultsAreNamedAtOnce() {
        BadRecipeException fault = catchThrowableOfType(
                BadRecipeException.class,
                () -> RecipeJson.read("{\"format\":\"yubble-recipe\",\"version\":1,\"band\":{\"near\":1.5},"
                        + "\"aperture\":{\"fNumber\":0},\"disc\":{\"blades\":3},\"opacity\":2}"));
        assertThat(fault.faults()).hasSize(4);
        assertThat(fault.faults().get(0)).contains("1.5");
    }

    @Test
    void aGreyDepthFileKeepsSixteenBits() throws IOException {
        Plane plane = new Plane(300, 200);
        for (int i = 0; i < plane.samples().length; i++) {
            plane.samples()[i] = i / (float) plane.samples().length;
        }
        ByteArrayOutputStream file = new ByteArrayOutputStream();
        PictureWriter.writeGrey(plane, file);
        Plane back = new DepthFileReader(PictureReader.DEFAULT).read(file.toByteArray(), new Size(600, 400));
        for (int i = 0; i < plane.samples().length; i += 101) {
            assertThat(back.samples()[i]).isCloseTo(plane.samples()[i], within(1e-5f));
        }
    }

    @Test
    void aColourDepthFileIsTheMeanOfItsChannels() throws IOException {
        BufferedImage image = new BufferedImage(30, 20, BufferedImage.TYPE_INT_RGB);
        image.setRGB(4, 5, 0xff8000);
        ByteArrayOutputStream file = new ByteArrayOutputStream();
        ImageIO.write(image, "png", file);
        Plane back = new DepthFileReader(PictureReader.DEFAULT).read(file.toByteArray(), new Size(30, 20));
        assertThat(back.at(4, 5)).isCloseTo((255 + 128) / (3 * 255f), within(1e-5f));
        assertThat(back.at(0, 0)).isZero();
    }

    @Test
    void aDepthFileThatCannotBelongIsRefused() throws IOException {
        DepthFileReader reader = new DepthFileReader(PictureReader.DEFAULT);
        ByteArrayOutputStream file = new ByteArrayOutputStream();
        PictureWriter.writeGrey(Plane.filled(new Size(30, 20), 0.5f), file);
        assertThatThrownBy(() -> reader.read(file.toByteArray(), new Size(400, 400)))
                .isInstanceOf(DepthShapeException.class);
        assertThatThrownBy(() -> reader.read(file.toByteArray(), new Size(600, 400)))
                .isInstanceOf(UnreadablePictureException.class)
                .hasMessageContaining("equal");
    }

    /** 200 touch-ups with 5 000 strokes, and one stroke more. */
    @Test
    void aStepOfALongHistoryStoresLittleAndAllOfItComesBack() {
        Recipe recipe = painted(5000);
        RecipePieces before = RecipePieces.cut(recipe);
        Map<String, String> stored = new HashMap<>();
        before.pieces().forEach((name, text) -> stored.put(name, text.get()));
        assertThat(RecipePieces.join(before.whole(), names -> stored)).isEqualTo(recipe);
        Recipe after = painted(5001);
        RecipePieces cut = RecipePieces.cut(after);
        int bytes = cut.whole().length();
        for (Map.Entry<String, Supplier<String>> piece : cut.pieces().entrySet()) {
            if (!stored.containsKey(piece.getKey())) {
                stored.put(piece.getKey(), piece.getValue().get());
                bytes += piece.getValue().get().length();
            }
        }
        assertThat(bytes).isLessThan(20_000);
        assertThat(RecipePieces.join(cut.whole(), names -> stored)).isEqualTo(after);
        assertThat(RecipePieces.join(RecipeJson.write(recipe), names -> Map.of()))
                .as("stored before there were pieces")
                .isEqualTo(recipe);
        assertThatThrownBy(() -> RecipePieces.join(cut.whole(), names -> Map.of()))
                .isInstanceOf(BadRecipeException.class)
                .hasMessageContaining("missing");
    }

    private static Recipe painted(int strokes) {
        List<Touchup> touchups = new ArrayList<>();
        for (int i = 0; i < 200; i++) {
            Stroke[] own = new Stroke[i < 199 ? 25 : strokes - 199 * 25];
            for (int j = 0; j < own.length; j++) {
                float[] points = new float[60];
                for (int k = 0; k < points.length; k++) {
                    points[k] = Math.round((Math.sin(i * 7 + j * 3 + k) / 2 + 0.5) * 1e5) / 1e5f;
                }
                own[j] = new Stroke(Stroke.Brush.of(0.05), points);
            }
            touchups.add(Touchup.of("t" + i, Touchup.Action.FOCUS, 1, 0.5, own));
        }
        return Recipe.INITIAL.withTouchups(touchups);
    }
}
