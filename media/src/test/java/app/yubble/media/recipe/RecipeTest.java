package app.yubble.media.recipe;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.catchThrowableOfType;

import app.yubble.core.atmosphere.Atmosphere;
import app.yubble.core.atmosphere.Mist;
import app.yubble.core.atmosphere.Tone;
import app.yubble.core.clip.Ease;
import app.yubble.core.depth.DepthTrim;
import app.yubble.core.finish.Finish;
import app.yubble.core.focus.Gain;
import app.yubble.core.focus.SharpBand;
import app.yubble.core.follow.Follow;
import app.yubble.core.follow.Put;
import app.yubble.core.ladder.Rung;
import app.yubble.core.lens.Aperture;
import app.yubble.core.lens.Disc;
import app.yubble.core.lens.Glints;
import app.yubble.core.recipe.ApertureMark;
import app.yubble.core.recipe.BandMark;
import app.yubble.core.recipe.DepthChoice;
import app.yubble.core.recipe.GainMark;
import app.yubble.core.recipe.Marks;
import app.yubble.core.recipe.OpacityMark;
import app.yubble.core.recipe.Recipe;
import app.yubble.core.shape.BlurShape;
import app.yubble.core.shape.Cover;
import app.yubble.core.shape.Place;
import app.yubble.core.shape.ShapeMark;
import app.yubble.core.shape.Tie;
import app.yubble.core.touchup.KeptAt;
import app.yubble.core.touchup.PickOut;
import app.yubble.core.touchup.Span;
import app.yubble.core.touchup.Stroke;
import app.yubble.core.touchup.Touchup;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.function.Supplier;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.junit.jupiter.api.DynamicTest;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestFactory;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.JsonNodeFactory;
import tools.jackson.databind.node.ObjectNode;

class RecipeTest {
    private static final Path FORMATS = Path.of("../docs/formats.md");
    private static final String BEGIN = "<!-- settings: begin -->\n";
    private static final String END = "<!-- settings: end -->\n";

    /** As version 1 wrote it, all settings moved. */
    private static final Recipe EVERY_SETTING = Recipe.INITIAL
            .withDepth(new DepthChoice(
                    DepthChoice.Source.FILE, 0.3, new DepthTrim(true, 0.1, 0.9, 0.4, -0.2, 0.5), List.of()))
            .withTouchups(List.of(leftEar(), revealed()))
            .withBand(new SharpBand(0.7, 0.55, 0.02, 0.1, 0.2, -0.1))
            .withAperture(
                    Aperture.DEFAULT.withLens(85, 23.5, 1.75).withFNumber(1.4).withFree(62))
            .withGain(new Gain(0.5, 1.5))
            .withDisc(Disc.bladed(7, 0.4, 12)
                    .withRim(-0.3)
                    .withHollow(0.2)
                    .withSqueeze(0.5)
                    .withStretch(1.4))
            .withGlints(new Glints(0.6, 0.7))
            .withFinish(Finish.NONE)
            .withOpacity(0.8);

    private static final Recipe OLD_INITIAL = Recipe.INITIAL.withFinish(Finish.NONE);

    private static Touchup leftEar() {
        Stroke.Brush brush = new Stroke.Brush(true, 0.03, 0.5, 0.2, 0.7, Stroke.Edges.BOTH, Stroke.Pressure.BUILD_UP);
        Stroke line = new Stroke(brush, 0.25f, -0.5f, 1, 0.75f, 0.125f, 0.5f);
        Stroke dab = new Stroke(Stroke.Brush.of(0.5), 0.5f, 0.5f, 1);
        Stroke mark = new Stroke(Stroke.Brush.of(0.01).erasing(), 0.25f, 0.5f, 1);
        PickOut box = new PickOut(0.1, 0.2, 0.5, 0.25, List.of(mark));
        return new Touchup(
                "a",
                "left ear",
                Touchup.Action.BLUR,
                -0.4,
                0.25,
                false,
                true,
                List.of(line, dab),
                new Touchup.Start(box, null),
                new Touchup.Rim(-0.01, 0.02),
                Span.ALL);
    }

    private static Touchup revealed() {
        return new Touchup(
                "b",
                "",
                Touchup.Action.REVEAL,
                1,
                0,
                true,
                false,
                List.of(),
                new Touchup.Start(null, "0123456789abcdef".repeat(4)),
                Touchup.Rim.PLAIN,
                Span.ALL);
    }

    @Test
    void aRecipeComesBackAsItWasWritten() {
        Recipe recipe = EVERY_SETTING
                .withFinish(new Finish(0.7, 0.3))
                .withDepth(EVERY_SETTING
                        .depth()
                        .withLadder(List.of(new Rung(0.1, 0.2, false, 1.5, 0), new Rung(0.3, 0.4, true, 0, 2))))
                .withAtmosphere(new Atmosphere(
                        Mist.NONE
                                .withDensity(0.4)
                                .withStart(0.8)
                                .withHeight(0.5)
                                .withClearing(0.2)
                                .withPicked(0.1, 0.2, 0.3),
                        new Tone(0.1, -0.2, 0.3, -1.5),
                        new Tone(-0.1, 0.2, -0.3, 1)));
        assertThat(RecipeJson.read(RecipeJson.write(recipe))).isEqualTo(recipe);
        assertThat(RecipeJson.read(RecipeJson.write(EVERY_SETTING))).isEqualTo(EVERY_SETTING);
    }

    /** The marks of a pulled focus, of every kind. */
    private static Marks marks() {
        SharpBand near = new SharpBand(0.86, 0.78, 0.06, 0.06, 0.1, 0);
        Ease drawn = Ease.drawn(List.of(new Ease.CurvePoint(0.25, 0.5), new Ease.CurvePoint(0.75, 0.625)));
        return new Marks(
                List.of(new BandMark(0.5, drawn, near), new BandMark(2.75, Ease.HOLD, near.tilted(0, 0))),
                List.of(new ApertureMark(1, Ease.STRAIGHT, 4, 50)),
                List.of(new GainMark(0, Ease.SMOOTH, new Gain(0.5, 2))),
                List.of(new OpacityMark(0, Ease.SMOOTH, 0), new OpacityMark(1, Ease.SMOOTH, 1)));
    }

    @Test
    void marksAndSpansComeBackAsTheyWereWritten() {
        Recipe recipe =
                EVERY_SETTING.withMarks(marks()).withTouchups(List.of(leftEar().withSpan(new Span(1, 2.5, 0.25))));
        assertThat(RecipeJson.read(RecipeJson.write(recipe))).isEqualTo(recipe);
        RecipePieces cut = RecipePieces.cut(recipe);
        assertThat(RecipePieces.join(
                        cut.whole(),
                        names -> names.stream()
                                .collect(Collectors.toMap(
                                        each -> each,
                                        each -> cut.pieces().get(each).get()))))
                .isEqualTo(recipe);
    }

    @Test
    void followsComeBackAsTheyWereWritten() {
        List<Put> puts = List.of(new Put(0.5, 0.25, 0.75), new Put(2, 0.3, 0.7));
        Recipe recipe = EVERY_SETTING.withFollows(
                List.of(new Follow("eye", "Her eye", puts, true, true, 0.05, -0.2, 1, new Span(0.5, 4, 0.5))));
        assertThat(RecipeJson.read(RecipeJson.write(recipe))).isEqualTo(recipe);
        assertThatThrownBy(() -> RecipeJson.read(version("5", "\"follows\":[{\"id\":\"a\",\"puts\":[{\"x\":2}]}]")))
                .hasMessageContaining("follows[0].puts[0].x must be in 0..1");
        assertThatThrownBy(() -> RecipeJson.read(version("5", "\"follows\":[{\"id\":\"a\"}]")))
                .hasMessageContaining("put by hand");
    }

    @Test
    void blurShapesComeBackAsTheyWereWritten() {
        Place place = new Place(-0.25, 0.75, 0.5, 0.125, -30);
        BlurShape shape = new BlurShape(
                "sign",
                "The sign",
                BlurShape.Form.RECTANGLE,
                place,
                0.5,
                0.03,
                40,
                true,
                false,
                new Cover(Cover.Which.IN_FRONT, 0.6, 0.1),
                new Tie("eye", 2.5),
                List.of(new ShapeMark(1, Ease.STRAIGHT, place.moved(0.125, 0))),
                new Span(0.5, 4, 0.5));
        Recipe recipe = EVERY_SETTING.withShapes(List.of(shape));
        assertThat(RecipeJson.read(RecipeJson.write(recipe))).isEqualTo(recipe);
        assertThat(RecipeJson.read(version("6", "\"shapes\":[{\"id\":\"a\",\"corners\":0}]"))
                        .shapes())
                .containsExactly(BlurShape.of("a", BlurShape.Form.ELLIPSE, Place.USUAL));
        String many =
                IntStream.range(0, 101).mapToObj(i -> "{\"id\":\"" + i + "\"}").collect(Collectors.joining(","));
        assertThatThrownBy(() -> RecipeJson.read(version("6", "\"shapes\":[" + many + "]")))
                .hasMessageContaining("at most 100 blur shapes, found 101");
        assertThatThrownBy(() -> RecipeJson.read(version("6", "\"shapes\":[{}]")))
                .hasMessageContaining("needs an id");
    }

    @Test
    void marksOutOfOrderAreRefusedWithTheirPlace() {
        assertThatThrownBy(() -> RecipeJson.read("{\"format\":\"yubble-recipe\",\"version\":3,"
                        + "\"marks\":{\"opacity\":[{\"at\":2},{\"at\":1}],\"band\":[{\"at\":-1}]}}"))
                .hasMessageContaining("marks.band[0].at must be in 0..36000 s");
        assertThatThrownBy(() -> RecipeJson.read("{\"format\":\"yubble-recipe\",\"version\":3,"
                        + "\"marks\":{\"opacity\":[{\"at\":2},{\"at\":1}]}}"))
                .hasMessageContaining("marks: marks of the opacity must follow each other");
    }

    @Test
    void aRecipeOfVersionOneIsReadForEver() throws IOException {
        assertThat(RecipeJson.read(golden("every-setting.json"))).isEqualTo(EVERY_SETTING);
        assertThat(RecipeJson.read(golden("without-threshold.json")))
                .as("written before there was a threshold")
                .isEqualTo(OLD_INITIAL.withGlints(new Glints(0.6, 0.82)).withBand(new SharpBand(0.7, 0.55, 0.02, 0.1)));
        assertThat(RecipeJson.read(golden("nothing.json"))).isEqualTo(OLD_INITIAL);
        Recipe odd = RecipeJson.read(golden("numbers-as-texts.json"));
        assertThat(odd.opacity()).isEqualTo(0.5);
        assertThat(odd.disc().blades()).isEqualTo(7);
        assertThat(odd.touchups().get(0).inverted()).isTrue();
        assertThat(odd.touchups().get(0).strokes().get(0).points()).containsExactly(0.5f, 0.25f, 1);
        assertThat(odd.touchups().get(0).start().pickOut()).isEqualTo(new PickOut(0, 0.5, 1.0000004, 0.5, List.of()));
    }

    @Test
    void aStepStoredByVersionOneIsReadForEver() throws IOException {
        JsonNode stored = JsonMapper.shared().readTree(golden("stored-in-pieces.json"));
        Map<String, String> pieces = new HashMap<>();
        stored.path("pieces").forEachEntry((name, text) -> pieces.put(name, text.asString()));
        assertThat(RecipePieces.join(stored.path("whole").asString(), names -> pieces))
                .isEqualTo(EVERY_SETTING);
        assertThat(RecipePieces.join(golden("every-setting.json"), names -> Map.of()))
                .isEqualTo(EVERY_SETTING);
    }

    private static String golden(String name) throws IOException {
        try (var file = RecipeTest.class.getResourceAsStream("/recipes/v1/" + name)) {
            return new String(Objects.requireNonNull(file).readAllBytes(), StandardCharsets.UTF_8);
        }
    }

    @Test
    void whatIsMissingHasItsDefault() {
        assertThat(RecipeJson.read("{\"format\":\"yubble-recipe\",\"version\":4}"))
                .isEqualTo(Recipe.INITIAL);
        assertThat(RecipeJson.read("{\"format\":\"yubble-recipe\",\"version\":3}"))
                .as("made before there was grain, so that it stays as it was")
                .isEqualTo(OLD_INITIAL);
        assertThat(RecipeJson.read(version2("\"depth\":{\"source\":\"camera\"}"))
                        .depth())
                .as("what is usual for a source")
                .isEqualTo(DepthChoice.of(DepthChoice.Source.CAMERA));
    }

    private static String version2(String parts) {
        return version("2", parts);
    }

    private static String version(String number, String parts) {
        return "{\"format\":\"yubble-recipe\",\"version\":" + number + "," + parts + "}";
    }

    @Test
    void whatWasSaidOfAKeptSubjectIsWrittenAndRead() {
        Stroke mark = new Stroke(Stroke.Brush.of(0.01), 0.25f, 0.5f, 1);
        List<KeptAt> said = List.of(
                new KeptAt(0.5, KeptAt.By.CLICK, new PickOut(0, 0, 1, 1, List.of(mark))),
                new KeptAt(2, KeptAt.By.BOX, new PickOut(0.25, 0.25, 0.5, 0.5, List.of())),
                new KeptAt(1, KeptAt.By.CARRIED, new PickOut(0, 0, 1, 1, List.of(mark))));
        Recipe recipe = EVERY_SETTING.withTouchups(
                List.of(Touchup.of("a", Touchup.Action.FOCUS, 1, 0).withStart(new Touchup.Start(null, null, said))));
        assertThat(RecipeJson.read(RecipeJson.write(recipe))).isEqualTo(recipe);
        String carriedFirst =
                "\"touchups\":[{\"id\":\"a\",\"kept\":[{\"by\":\"carried\",\"marks\":[{\"points\":[0.5,0.5,1]}]}]}]";
        assertThatThrownBy(() -> RecipeJson.read(version("6", carriedFirst)))
                .hasMessageContaining("pointed out before it is put right");
        String unmarked = "\"touchups\":[{\"id\":\"a\",\"kept\":[{\"by\":\"click\"}]}]";
        assertThatThrownBy(() -> RecipeJson.read(version("6", unmarked))).hasMessageContaining("needs a mark");
        String both = "\"touchups\":[{\"id\":\"a\",\"pickOut\":{},\"kept\":[{\"by\":\"box\"}]}]";
        assertThatThrownBy(() -> RecipeJson.read(version("6", both))).hasMessageContaining("not with more than one");
    }

    @Test
    void whatIsNoRecipeIsRefusedByName() {
        assertThatThrownBy(() -> RecipeJson.read("{\"format\":\"yubble-recipe\",\"version\":7}"))
                .isInstanceOf(BadRecipeException.class)
                .hasMessageContaining("version 7")
                .hasMessageContaining("up to 6");
        assertThatThrownBy(() -> RecipeJson.read("{\"format\":\"yubble-recipe\"}"))
                .hasMessageContaining("\"version\" of a recipe");
        assertThatThrownBy(() -> RecipeJson.read("{}")).hasMessageContaining("not a recipe");
        assertThatThrownBy(() -> RecipeJson.read("[]")).hasMessageContaining("not a recipe");
        assertThatThrownBy(() -> RecipeJson.read("{\"format\":")).hasMessageContaining("not valid JSON");
        assertThatThrownBy(() -> RecipeJson.read(version2("\"glintThreshold\":0.5")))
                .hasMessageContaining("unknown field \"glintThreshold\"");
    }

    @Test
    void allFaultsAreNamedAtOnceAndWhereTheyAre() {
        BadRecipeException fault = catchThrowableOfType(
                BadRecipeException.class,
                () -> RecipeJson.read(version2("\"band\":{\"near\":1.5,\"wide\":1},\"aperture\":{\"fNumber\":\"2\"},"
                        + "\"disc\":{\"blades\":3},\"gain\":7,\"opacity\":2,\"touchups\":[{\"id\":\"a\",\"action\":\"melt\"},"
                        + "{\"name\":\"b\",\"strokes\":[{\"size\":0.1}]}]")));
        assertThat(fault.faults())
                .containsExactlyInAnyOrder(
                        "unknown field \"band.wide\"",
                        "band.near must be in 0..1, found 1.5",
                        "aperture.fNumber must be a number",
                        "disc: blades must be 0 (round) or 5..11, found 3",
                        "gain must be an object",
                        "opacity must be in 0..1, found 2",
                        "touchups[0].action must be one of \"focus\", \"blur\", \"match\", \"reveal\", found \"melt\"",
                        "touchups[1].strokes[0].points must be a list of numbers");
    }

    /** What a declaration says holds for whoever reads a recipe and for whoever makes one. */
    @TestFactory
    Stream<DynamicTest> everyNumberHasItsRange() {
        return RecipeSchema.definitions("").entrySet().stream()
                .filter(each -> !List.of("Recipe", "Touchup", "Stroke", "PickOut", "CurvePoint", "Put")
                        .contains(each.getKey()))
                .flatMap(each -> each.getValue()
                        .path("properties")
                        .propertyStream()
                        .filter(property -> property.getValue().has("maximum"))
                        .map(property -> DynamicTest.dynamicTest(
                                each.getKey() + " " + property.getKey(),
                                () -> assertRange(each.getKey(), property.getKey(), property.getValue()))));
    }

    private static void assertRange(String type, String name, JsonNode declared) {
        String part = type.equals("SharpBand") ? "band" : type.equals("DepthChoice") ? "depth" : type.toLowerCase();
        List<String> inAir = List.of("mist", "tone");
        for (String bound : List.of("minimum", "maximum")) {
            ObjectNode own = JsonNodeFactory.instance.objectNode();
            own.put(name, declared.path(bound).doubleValue() + (bound.equals("minimum") ? -0.5 : 0.5));
            if (type.equals("Disc") && name.equals("blades")) {
                own.put(name, bound.equals("minimum") ? -1 : 12);
            }
            if (type.endsWith("Mark") && !type.equals("ShapeMark")) {
                String kind = part.substring(0, part.length() - "mark".length());
                assertThatThrownBy(() -> RecipeJson.read(version2("\"marks\":{\"" + kind + "\":[" + own + "]}")))
                        .hasMessageContaining("marks." + kind + "[0]." + name + " must be in");
            } else if (type.equals("Follow")) {
                own.put("id", "a").putArray("puts").addObject();
                assertThatThrownBy(() -> RecipeJson.read(version("5", "\"follows\":[" + own + "]")))
                        .hasMessageContaining("follows[0]." + name + " must be in");
            } else if (type.equals("KeptAt")) {
                assertThatThrownBy(() ->
                                RecipeJson.read(version("6", "\"touchups\":[{\"id\":\"a\",\"kept\":[" + own + "]}]")))
                        .hasMessageContaining("touchups[0].kept[0]")
                        .hasMessageContaining(name);
            } else if (type.equals("Rung")) {
                assertThatThrownBy(() -> RecipeJson.read(version("6", "\"depth\":{\"ladder\":[" + own + "]}")))
                        .hasMessageContaining("depth.ladder[0]." + name + " must be in");
            } else if (type.equals("BlurShape") || type.equals("ShapeMark")) {
                boolean mark = type.equals("ShapeMark");
                own.put("id", "a");
                String shape = mark ? "{\"id\":\"a\",\"marks\":[" + own.without("id") + "]}" : own.toString();
                assertThatThrownBy(() -> RecipeJson.read(version("6", "\"shapes\":[" + shape + "]")))
                        .hasMessageContaining("shapes[0]." + (mark ? "marks[0]." : "") + name + " must be in");
            } else if (inAir.contains(part)) {
                String at = part.equals("tone") ? "behind" : part;
                assertThatThrownBy(() -> RecipeJson.read(version("4", "\"atmosphere\":{\"" + at + "\":" + own + "}")))
                        .hasMessageContaining("atmosphere." + at + "." + name + " must be in");
            } else {
                assertThatThrownBy(() -> RecipeJson.read(version("4", "\"" + part + "\":" + own)))
                        .hasMessageContaining(part + "." + name + " must be in");
            }
        }
    }

    @Test
    void theTableInTheDocsIsThatOfTheDeclarations() throws IOException {
        String docs = Files.readString(FORMATS);
        int from = docs.indexOf(BEGIN) + BEGIN.length();
        int to = docs.indexOf(END);
        if (Boolean.getBoolean("yubble.renew")) {
            docs = docs.substring(0, from) + RecipeTable.text() + docs.substring(to);
            Files.writeString(FORMATS, docs);
            to = docs.indexOf(END);
        }
        assertThat(docs.substring(from, to))
                .as("write it with -Dyubble.renew=true")
                .isEqualTo(RecipeTable.text());
        int example = docs.indexOf("```json\n") + "```json\n".length();
        assertThat(RecipeJson.read(docs.substring(example, docs.indexOf("```", example)))
                        .touchups())
                .hasSize(1);
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
