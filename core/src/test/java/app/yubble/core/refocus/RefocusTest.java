package app.yubble.core.refocus;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import app.yubble.core.Pictures;
import app.yubble.core.atmosphere.Atmosphere;
import app.yubble.core.atmosphere.Mist;
import app.yubble.core.atmosphere.Tone;
import app.yubble.core.depth.DepthEstimate;
import app.yubble.core.depth.DepthTrim;
import app.yubble.core.finish.Finish;
import app.yubble.core.focus.SharpBand;
import app.yubble.core.lens.Aperture;
import app.yubble.core.lens.DiscCharacter;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Progress;
import app.yubble.core.raster.Region;
import app.yubble.core.raster.Resample;
import app.yubble.core.raster.Size;
import app.yubble.core.recipe.DepthChoice;
import app.yubble.core.recipe.Recipe;
import app.yubble.core.touchup.Span;
import app.yubble.core.touchup.Stroke;
import app.yubble.core.touchup.Touchup;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.concurrent.CancellationException;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import org.junit.jupiter.params.provider.ValueSource;

class RefocusTest {
    /** A bright textured wall behind a darker textured disc. */
    private static final class Scene implements Photo {
        final Picture full;
        final Plane depth;
        final AtomicInteger decoded = new AtomicInteger();

        Scene(int width, int height) {
            full = Pictures.grey(
                    width,
                    height,
                    (x, y) -> onDisc(x, y, width, height)
                            ? 0.2 + 0.1 * Math.sin(x * 0.3)
                            : 0.6 + 0.3 * Math.sin(x * 0.11) * Math.sin(y * 0.13));
            depth = Pictures.plane(width, height, (x, y) -> onDisc(x, y, width, height) ? 0.8 : 0.2);
        }

        private static boolean onDisc(int x, int y, int width, int height) {
            return Math.hypot(x - width / 2.0, y - height / 2.0) < height / 4.0;
        }

        @Override
        public String id() {
            return "scene";
        }

        @Override
        public Plane mask(String file) {
            return Plane.filled(new Size(30, 20), 0.7f);
        }

        @Override
        public String depthId(DepthChoice.Source source) {
            return "depth";
        }

        @Override
        public Size size() {
            return full.size();
        }

        @Override
        public Picture picture(Size size) {
            decoded.incrementAndGet();
            return Resample.toSize(full, size);
        }

        @Override
        public DepthEstimate depth(DepthChoice.Source source) {
            return DepthEstimate.of(depth);
        }
    }

    private static final Atmosphere MISTY =
            Atmosphere.CLEAR.withMist(Mist.NONE.withDensity(0.6).withClearing(0.5));

    private final Scene scene = new Scene(1200, 800);
    private final RefocusLine line = new RefocusLine(StageCache.keepingAll());
    private final Viewer viewer = new Viewer();
    private final Recipe recipe = Recipe.INITIAL
            .withDepth(DepthChoice.of(DepthChoice.Source.FILE))
            // Grain has another pattern at every size.
            .withFinish(Finish.NONE)
            .withBand(SharpBand.around(0.8, 0.1, 0.02));

    private void assertPreviewIsLikeDelivery(Recipe wanted) {
        Size small = new Size(600, 400);
        Picture preview = line.render(viewer, scene, wanted, View.of(small), Progress.NONE);
        Picture delivery =
                Resample.toSize(line.render(viewer, scene, wanted, View.of(scene.size()), Progress.NONE), small);
        assertThat(Pictures.psnr(preview, delivery)).isGreaterThan(38);
    }

    @ParameterizedTest
    @EnumSource(DiscCharacter.class)
    void previewAndDeliveryLookAlikeWithEveryDisc(DiscCharacter character) {
        assertPreviewIsLikeDelivery(recipe.withDisc(character.disc()));
    }

    @Test
    void previewAndDeliveryLookAlikeWhenTheSubjectIsBlurredInFront() {
        assertPreviewIsLikeDelivery(recipe.withBand(SharpBand.around(0.2, 0.1, 0.02)));
    }

    @Test
    void changingTheApertureDoesNotDecodeAgain() {
        Size size = new Size(300, 200);
        line.render(viewer, scene, recipe, View.of(size), Progress.NONE);
        line.render(viewer, scene, recipe.withAperture(Aperture.DEFAULT.withFree(60)), View.of(size), Progress.NONE);
        assertThat(scene.decoded.get()).isEqualTo(1);
    }

    @Test
    void aBandOverEverythingReturnsTheSource() {
        Picture out =
                line.render(viewer, scene, recipe.withBand(SharpBand.EVERYTHING), View.of(scene.size()), Progress.NONE);
        assertThat(out.red().samples()).isEqualTo(scene.full.red().samples());
    }

    @Test
    void opacityMixesTheEffectWithThePhoto() {
        Region region = new Region(0, 0, 200, 200);
        Picture full = line.render(viewer, scene, recipe, new View(scene.size(), region), Progress.NONE);
        Picture half =
                line.render(viewer, scene, recipe.withOpacity(0.5), new View(scene.size(), region), Progress.NONE);
        Plane expected = Pictures.plane(
                200, 200, (x, y) -> (full.red().at(x, y) + scene.full.red().at(x, y)) / 2);
        assertThat(Pictures.distance(half.red(), expected)).isLessThan(1e-5);
    }

    @Test
    void flippingTheDepthSwapsWhatIsSharp() {
        Recipe flipped = recipe.withDepth(recipe.depth().withTrim(DepthTrim.NONE.withFlip(true)));
        Picture out = line.render(viewer, scene, flipped, View.of(scene.size()), Progress.NONE);
        assertThat(out.red().at(50, 50)).isEqualTo(scene.full.red().at(50, 50));
        assertThat(out.red().at(600, 400)).isNotEqualTo(scene.full.red().at(600, 400));
    }

    @Test
    void aCancelledStageIsComputedAgainByTheNext() {
        StageCache cache = StageCache.keepingAll();
        StageKey key = StageKey.of("stage", List.of(), List.of());
        assertThatThrownBy(() -> cache.get(key, String.class, text -> 1, () -> {
                    throw new CancellationException();
                }))
                .isInstanceOf(CancellationException.class);
        assertThat(cache.get(key, String.class, text -> 1, () -> "done")).isEqualTo("done");
    }

    @Test
    void whatIsPreparedCanBeLeftHalfWayAndGoneOnWith() {
        AtomicInteger parts = new AtomicInteger();
        assertThatThrownBy(() -> line.prepare(scene, recipe, scene.size(), done -> {
                    if (parts.incrementAndGet() == 2) {
                        throw new CancellationException("somebody looks");
                    }
                }))
                .isInstanceOf(CancellationException.class);
        parts.set(0);
        line.prepare(scene, recipe, scene.size(), done -> parts.incrementAndGet());
        assertThat(parts.get()).isPositive();
        parts.set(0);
        line.prepare(scene, recipe, scene.size(), done -> parts.incrementAndGet());
        assertThat(parts.get()).isZero();
    }

    private static Touchup touchup(Touchup.Action action, double strength, Stroke... strokes) {
        return Touchup.of(action.name(), action, strength, 0.8, strokes);
    }

    private static Stroke dab(double x, double y, double size, double cling) {
        return new Stroke(Stroke.Brush.of(size).withCling(cling), (float) x, (float) y, 1);
    }

    @Test
    void previewAndDeliveryLookAlikeWithTouchUps() {
        assertPreviewIsLikeDelivery(recipe.withTouchups(List.of(
                touchup(Touchup.Action.FOCUS, 1, dab(0.2, 0.3, 0.2, 0)),
                touchup(Touchup.Action.BLUR, 0.3, dab(0.5, 0.5, 0.15, 0), dab(0.45, 0.6, 0.1, 0.6)),
                touchup(Touchup.Action.REVEAL, 0.7, dab(0.8, 0.7, 0.2, 0)))));
    }

    @Test
    void revealGivesBackThePhotoAndLeavesDepthAlone() {
        Recipe painted = recipe.withTouchups(List.of(touchup(Touchup.Action.REVEAL, 1, dab(0.2, 0.3, 0.2, 0))));
        Size size = new Size(600, 400);
        Picture out = line.render(viewer, scene, painted, View.of(size), Progress.NONE);
        Picture photo = line.picture(scene, size);
        Picture blurred = line.render(viewer, scene, recipe, View.of(size), Progress.NONE);
        assertThat(out.red().at(120, 120)).isEqualTo(photo.red().at(120, 120));
        assertThat(out.red().at(400, 60)).isEqualTo(blurred.red().at(400, 60));
        assertThat(line.nearness(scene, painted, size).samples())
                .isEqualTo(line.nearness(scene, recipe, size).samples());
    }

    @Test
    void blurCanBePaintedWhereEverythingElseIsSharp() {
        Recipe painted = recipe.withBand(SharpBand.EVERYTHING)
                .withAperture(Aperture.DEFAULT.withFree(100))
                .withTouchups(List.of(touchup(Touchup.Action.BLUR, 0.6, dab(0.2, 0.3, 0.2, 0))));
        Size size = new Size(600, 400);
        Picture out = line.render(viewer, scene, painted, View.of(size), Progress.NONE);
        Picture photo = line.picture(scene, size);
        double changed = 0;
        for (int x = 100; x < 140; x++) {
            changed += Math.abs(out.red().at(x, 120) - photo.red().at(x, 120)) / 40;
        }
        assertThat(changed).isGreaterThan(0.02);
        assertThat(out.red().at(400, 300)).isEqualTo(photo.red().at(400, 300));
    }

    @Test
    void strokesGiveTheSameOneByOneAndAllAtOnceAndAHiddenTouchUpDoesNothing() {
        Stroke[] strokes = {dab(0.3, 0.4, 0.2, 0.6), dab(0.4, 0.5, 0.1, 0), dab(0.35, 0.45, 0.05, 0.3)};
        Size size = new Size(600, 400);
        for (int i = 1; i <= 3; i++) {
            Touchup grown = touchup(Touchup.Action.FOCUS, 1, Arrays.copyOf(strokes, i));
            line.nearness(scene, recipe.withTouchups(List.of(grown)), size);
        }
        Touchup whole = touchup(Touchup.Action.FOCUS, 1, strokes);
        RefocusLine fresh = new RefocusLine(StageCache.keepingAll());
        Recipe painted = recipe.withTouchups(List.of(whole));
        assertThat(line.nearness(scene, painted, size).samples())
                .isEqualTo(fresh.nearness(scene, painted, size).samples())
                .isNotEqualTo(line.nearness(scene, recipe, size).samples());
        Touchup hidden = new Touchup(
                "h",
                "",
                Touchup.Action.FOCUS,
                1,
                0.8,
                false,
                false,
                List.of(strokes),
                Touchup.Start.EMPTY,
                Touchup.Rim.PLAIN,
                Span.ALL);
        assertThat(line.nearness(scene, recipe.withTouchups(List.of(hidden)), size)
                        .samples())
                .isEqualTo(line.nearness(scene, recipe, size).samples());
    }

    /**
     * One after the other with what is kept, against each of them alone. What is hidden behind something in front is filled
     * from around, and a part that is drawn anew sees less of that.
     */
    @ParameterizedTest
    @ValueSource(doubles = {0.8, 0.5, 0.2})
    void whateverIsChangedTheResultIsThatOfTheRecipeAlone(double centre) {
        Recipe plain = recipe.withBand(SharpBand.around(centre, 0.1, 0.02));
        Touchup first = touchup(Touchup.Action.MATCH, 1, dab(0.3, 0.4, 0.2, 0.6));
        Touchup grown = touchup(Touchup.Action.MATCH, 1, dab(0.3, 0.4, 0.2, 0.6), dab(0.6, 0.5, 0.1, 0));
        Touchup weaker = touchup(Touchup.Action.MATCH, 0.5, dab(0.3, 0.4, 0.2, 0.6), dab(0.6, 0.5, 0.1, 0));
        Touchup blur = touchup(Touchup.Action.BLUR, 0.3, dab(0.55, 0.5, 0.08, 0));
        Touchup reveal = touchup(Touchup.Action.REVEAL, 1, dab(0.3, 0.35, 0.1, 0));
        List<Recipe> steps = List.of(
                plain,
                plain.withTouchups(List.of(first)),
                plain.withTouchups(List.of(grown)),
                plain.withTouchups(List.of(grown, blur)),
                plain.withTouchups(List.of(weaker, blur)),
                plain.withTouchups(List.of(blur, weaker)),
                plain.withTouchups(List.of(blur, weaker, reveal)),
                plain.withBand(SharpBand.around(centre + 0.05, 0.1, 0.02)).withTouchups(List.of(blur, weaker)),
                plain.withTouchups(List.of(blur)).withOpacity(0.5),
                plain.withDepth(plain.depth().withTrim(DepthTrim.NONE.withFlip(true)))
                        .withTouchups(List.of(blur)),
                plain.withTouchups(List.of(first)).withAtmosphere(MISTY),
                plain.withTouchups(List.of(grown)).withAtmosphere(MISTY),
                plain.withBand(SharpBand.EVERYTHING).withAtmosphere(MISTY),
                plain.withTouchups(List.of(grown, reveal))
                        .withAtmosphere(MISTY.withBehind(new Tone(0.5, 0, -0.5, 1)))
                        .withFinish(new Finish(1, 1)),
                plain.withTouchups(List.of(first, reveal)).withFinish(new Finish(0.5, 0.4)),
                plain.withTouchups(List.of(first)),
                plain);
        Size size = new Size(600, 400);
        Region part = new Region(120, 80, 300, 200);
        for (int i = 0; i < steps.size(); i++) {
            RefocusLine fresh = new RefocusLine(StageCache.keepingAll());
            Recipe step = steps.get(i);
            assertThat(line.nearness(scene, step, size).samples())
                    .as("nearness after step %d", i)
                    .isEqualTo(fresh.nearness(scene, step, size).samples());
            for (Region each : List.of(Region.all(size), part)) {
                Picture kept = line.render(viewer, scene, step, new View(size, each), Progress.NONE);
                Picture alone = fresh.render(scene, step, new View(size, each), Progress.NONE);
                assertThat(Pictures.distance(kept.red(), alone.red()))
                        .as("%s after step %d", each, i)
                        .isLessThan(centre == 0.8 ? 1e-5 : 0.01);
                assertThat(Pictures.psnr(kept, alone)).isGreaterThan(60);
            }
        }
    }

    @Test
    void aCancelledPreviewLeavesNothingHalfDone() {
        Size size = new Size(600, 400);
        line.render(viewer, scene, recipe, View.of(size), Progress.NONE);
        Recipe painted = recipe.withTouchups(List.of(touchup(Touchup.Action.MATCH, 1, dab(0.3, 0.4, 0.2, 0))));
        assertThatThrownBy(() -> line.render(viewer, scene, painted, View.of(size), done -> {
                    if (done > 0.02) {
                        throw new CancellationException();
                    }
                }))
                .isInstanceOf(CancellationException.class);
        Picture fresh = new RefocusLine(StageCache.keepingAll()).render(scene, painted, View.of(size), Progress.NONE);
        Picture after = line.render(viewer, scene, painted, View.of(size), Progress.NONE);
        assertThat(Pictures.distance(after.red(), fresh.red())).isLessThan(1e-5);
    }

    @Test
    void aPictureThatWasHandedOutStaysAsItIs() {
        Size size = new Size(600, 400);
        Picture before = line.render(viewer, scene, recipe, View.of(size), Progress.NONE);
        float[] was = before.red().samples().clone();
        line.render(
                viewer,
                scene,
                recipe.withTouchups(List.of(
                        touchup(Touchup.Action.MATCH, 1, dab(0.3, 0.4, 0.2, 0)),
                        touchup(Touchup.Action.REVEAL, 1, dab(0.6, 0.4, 0.2, 0)))),
                View.of(size),
                Progress.NONE);
        assertThat(before.red().samples()).isEqualTo(was);
    }

    @Test
    void aPartOfALargePictureNeedsOnlyThePaintAroundItAndLooksLikeTheWhole() {
        Scene large = new Scene(3720, 2480);
        Touchup grown = new Touchup(
                "g",
                "",
                Touchup.Action.MATCH,
                1,
                0.2,
                true,
                false,
                List.of(dab(0.4, 0.5, 0.2, 0.6), dab(0.6, 0.5, 0.01, 0)),
                Touchup.Start.EMPTY,
                new Touchup.Rim(0.004, 0.002),
                Span.ALL);
        Recipe painted = recipe.withTouchups(
                List.of(grown, touchup(Touchup.Action.BLUR, 0.3, dab(0.5, 0.75, 0.1, 0.6), dab(0.1, 0.1, 0.3, 0.6))));
        Picture whole = line.render(viewer, large, painted, View.of(large.size()), Progress.NONE);
        for (Region part : List.of(new Region(1500, 1100, 500, 400), new Region(1700, 1600, 600, 400))) {
            Picture seen = new RefocusLine(StageCache.keepingAll())
                    .render(large, painted, new View(large.size(), part), Progress.NONE);
            Picture same = Resample.crop(whole, part);
            Picture plain = Resample.crop(large.full, part);
            assertThat(Pictures.psnr(same, plain)).as("%s is painted", part).isLessThan(40);
            assertThat(Pictures.psnr(seen, same)).as("%s", part).isGreaterThan(55);
        }
    }

    @Test
    void aSmallMoveOfTheViewDrawsOnlyThePaintThatComesIntoSight() {
        Scene large = new Scene(3720, 2480);
        Stroke[] strokes = new Stroke[12];
        Arrays.setAll(strokes, i -> dab(0.38 + 0.02 * i, 0.5, 0.1, 0.6));
        Recipe painted = recipe.withTouchups(List.of(touchup(Touchup.Action.MATCH, 0.2, strokes)));
        Picture whole = line.render(viewer, large, painted, View.of(large.size()), Progress.NONE);
        RefocusLine moving = new RefocusLine(StageCache.keepingAll());
        List<Integer> asked = new ArrayList<>();
        for (Region part : List.of(
                new Region(1500, 1100, 500, 400), new Region(1820, 1100, 500, 400), new Region(1600, 1150, 200, 200))) {
            AtomicInteger times = new AtomicInteger();
            Picture seen = moving.render(
                    viewer, large, painted, new View(large.size(), part), done -> times.incrementAndGet());
            asked.add(times.get());
            assertThat(Pictures.psnr(seen, Resample.crop(whole, part)))
                    .as("%s", part)
                    .isGreaterThan(55);
        }
        // Within what is there no stroke is drawn.
        assertThat(asked.get(2)).isLessThanOrEqualTo(asked.get(0) - strokes.length);
    }

    @Test
    void whatWasErasedFromAMaskFileStaysErasedAfterASmallMove() {
        Scene large = new Scene(3720, 2480);
        Stroke erasing = new Stroke(Stroke.Brush.of(0.15).erasing(), 0.45f, 0.5f, 1);
        Recipe painted = recipe.withTouchups(List.of(new Touchup(
                "f",
                "",
                Touchup.Action.BLUR,
                0.3,
                0.2,
                true,
                false,
                List.of(erasing),
                new Touchup.Start(null, "a".repeat(64)),
                Touchup.Rim.PLAIN,
                Span.ALL)));
        RefocusLine moving = new RefocusLine(StageCache.keepingAll());
        for (Region part : List.of(new Region(1500, 1100, 500, 400), new Region(1820, 1100, 500, 400))) {
            Picture fresh = new RefocusLine(StageCache.keepingAll())
                    .render(large, painted, new View(large.size(), part), Progress.NONE);
            Picture seen = moving.render(viewer, large, painted, new View(large.size(), part), Progress.NONE);
            assertThat(Pictures.psnr(seen, fresh)).as("%s", part).isGreaterThan(60);
        }
    }

    @Test
    void aPreviewThatIsCalledOffStopsBetweenStrokesAndTheNextIsWhole() {
        Stroke[] strokes = new Stroke[12];
        Arrays.setAll(strokes, i -> dab(0.2 + 0.05 * i, 0.5, 0.1, 0.6));
        Recipe painted = recipe.withTouchups(List.of(touchup(Touchup.Action.MATCH, 1, strokes)));
        Size size = new Size(600, 400);
        AtomicInteger asked = new AtomicInteger();
        assertThatThrownBy(() -> line.render(viewer, scene, painted, View.of(size), done -> {
                    if (asked.incrementAndGet() == 11) {
                        throw new CancellationException();
                    }
                }))
                .isInstanceOf(CancellationException.class);
        assertThat(asked.get()).isEqualTo(11);
        asked.set(0);
        line.render(viewer, scene, painted, View.of(size), done -> asked.addAndGet(done == 0 ? 1 : 0));
        assertThat(asked.get()).as("strokes after the last that was kept").isEqualTo(4);
        assertThat(line.nearness(scene, painted, size).samples())
                .isEqualTo(new RefocusLine(StageCache.keepingAll())
                        .nearness(scene, painted, size)
                        .samples());
    }

    @Test
    void anEdgeThatIsMovedFarComesInFromBesideWhatIsSeen() {
        Scene large = new Scene(3720, 2480);
        Stroke beside = dab(960 / 3720.0, 0.5, 100 / 3720.0, 0);
        Region seen = new Region(1100, 1150, 200, 200);
        Picture before = null;
        for (double grow : new double[] {0, 0.05}) {
            Touchup grown = new Touchup(
                    "g",
                    "",
                    Touchup.Action.MATCH,
                    1,
                    0.8,
                    true,
                    false,
                    List.of(beside),
                    Touchup.Start.EMPTY,
                    new Touchup.Rim(grow, 0),
                    Span.ALL);
            Picture now = line.render(
                    viewer, large, recipe.withTouchups(List.of(grown)), new View(large.size(), seen), Progress.NONE);
            if (before != null) {
                assertThat(Pictures.psnr(before, now)).isLessThan(40);
            }
            before = now;
        }
    }
}
