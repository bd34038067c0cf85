package app.yubble.core.refocus;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import app.yubble.core.Pictures;
import app.yubble.core.atmosphere.Atmosphere;
import app.yubble.core.atmosphere.Mist;
import app.yubble.core.clip.Moment;
import app.yubble.core.depth.DepthEstimate;
import app.yubble.core.depth.DepthTrim;
import app.yubble.core.finish.Finish;
import app.yubble.core.focus.SharpBand;
import app.yubble.core.ladder.Rung;
import app.yubble.core.lens.Aperture;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Progress;
import app.yubble.core.raster.Resample;
import app.yubble.core.raster.Size;
import app.yubble.core.recipe.Course;
import app.yubble.core.recipe.DepthChoice;
import app.yubble.core.recipe.Recipe;
import app.yubble.core.touchup.Mask;
import app.yubble.core.touchup.Stroke;
import app.yubble.core.touchup.Touchup;
import java.lang.reflect.RecordComponent;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import org.junit.jupiter.api.Test;

class StageTest {
    private static final Size SIZE = new Size(120, 80);

    /** A card before a wall; it stands farther right in every frame. */
    private record Frame(int number) implements Still {
        @Override
        public String id() {
            return "frame " + number;
        }

        @Override
        public String depthId(DepthChoice.Source source) {
            return "depth " + number;
        }

        @Override
        public Size size() {
            return SIZE;
        }

        @Override
        public Picture picture(Size size) {
            return Resample.toSize(
                    Pictures.grey(120, 80, (x, y) -> isCard(x) ? 0.3 : 0.5 + 0.4 * Math.sin(x) * Math.sin(y)), size);
        }

        @Override
        public DepthEstimate depth(DepthChoice.Source source) {
            return DepthEstimate.of(Pictures.plane(120, 80, (x, y) -> isCard(x) ? 0.8 : 0.2));
        }

        private boolean isCard(int x) {
            return x > 20 + 40 * number && x < 50 + 40 * number;
        }
    }

    private static final Recipe RECIPE = Recipe.INITIAL
            .withDepth(DepthChoice.of(DepthChoice.Source.FILE).withTrim(DepthTrim.NONE.withFlip(true)))
            .withAperture(Aperture.DEFAULT.withFree(80))
            .withBand(SharpBand.around(0.8, 0.1, 0))
            .withAtmosphere(Atmosphere.CLEAR.withMist(Mist.NONE.withDensity(0.5)))
            .withFinish(new Finish(0.5, 0.5))
            .withOpacity(0.5);

    private static Line line() {
        Touchup focus = Touchup.of("a", Touchup.Action.FOCUS, 1, 0.5, new Stroke(Stroke.Brush.of(0.1), 0.5f, 0.5f, 1));
        Touchup reveal = Touchup.of("b", Touchup.Action.REVEAL, 1, 0, new Stroke(Stroke.Brush.of(0.1), 0.2f, 0.5f, 1));
        return Line.of(
                new Frame(0),
                RECIPE,
                SIZE,
                30,
                List.of(new Painted(focus, Mask.empty(SIZE))),
                List.of(new Painted(reveal, Mask.empty(SIZE))));
    }

    private static Set<Stage<?>> stages(Stage<?> last) {
        Set<Stage<?>> out = new LinkedHashSet<>();
        last.takes().forEach(each -> out.addAll(stages(each)));
        out.add(last);
        return out;
    }

    @Test
    void theKeyOfAStageIsMadeOfAllThatItConsistsOf() throws ReflectiveOperationException {
        Set<Stage<?>> all = stages(line().result());
        assertThat(all)
                .extracting(Stage::name)
                .containsExactly(
                        "picture",
                        "depth",
                        "snapped",
                        "trimmed",
                        "laddered",
                        "painted",
                        "defocus",
                        "scene colour",
                        "air",
                        "glints",
                        "lens",
                        "measured noise",
                        "noise",
                        "crisp",
                        "grain",
                        "revealed",
                        "opacity");
        for (Stage<?> stage : all) {
            List<Object> told = new ArrayList<>(stage.takes());
            told.addAll(stage.reads());
            for (RecordComponent component : stage.getClass().getRecordComponents()) {
                component.getAccessor().setAccessible(true);
                Object value = component.getAccessor().invoke(stage);
                List<Object> wanted = new ArrayList<>();
                if (value instanceof Still still) {
                    wanted.add(still.id());
                } else if (value instanceof List<?> painted) {
                    painted.forEach(each -> wanted.add(each instanceof Painted paint ? paint.touchup() : each));
                } else {
                    wanted.add(value);
                }
                assertThat(wanted)
                        .as("%s of %s", component.getName(), stage.name())
                        .allMatch(each -> told.contains(each) || told.contains(List.of(each)));
            }
        }
    }

    @Test
    void aLadderIsPartOfTheKeyAndTakesWhatItsRungsStandOn() {
        LadderedStage without = line().laddered();
        LadderedStage one = new LadderedStage(without.trimmed(), List.of(Rung.at(0.1, 0.2), Rung.at(0.5, 0.5)));
        LadderedStage other = new LadderedStage(without.trimmed(), List.of(Rung.at(0.5, 0.5), Rung.at(0.1, 0.2)));
        assertThat(without.maker()).isEqualTo(without.trimmed());
        assertThat(one.key()).isNotEqualTo(without.key()).isNotEqualTo(other.key());
        assertThat(one.takes()).extracting(Stage::name).containsExactlyInAnyOrder("trimmed", "picture", "footing");
    }

    @Test
    void aStageWithNothingToDoPassesOnWhatItTakesAndItsKey() {
        Line all = line();
        OpacityStage full = new OpacityStage(all.revealed(), all.picture(), 1);
        OpacityStage none = new OpacityStage(all.revealed(), all.picture(), 0);
        assertThat(full.key())
                .isEqualTo(all.revealed().key())
                .isNotEqualTo(all.result().key());
        assertThat(none.maker()).isEqualTo(all.picture());
        TrimmedStage untrimmed = new TrimmedStage(all.laddered().trimmed().snapped(), DepthTrim.NONE);
        assertThat(untrimmed.key()).isEqualTo(all.laddered().trimmed().snapped().key());
    }

    @Test
    void theMomentsOfAClipGoThroughTheLineOfAPhoto() {
        Material clip = new Material() {
            @Override
            public List<Moment> moments() {
                return List.of(Moment.ONLY, new Moment(1, 40_000));
            }

            @Override
            public Still at(Moment moment) {
                return new Frame(moment.frame());
            }
        };
        Recipe near = RECIPE.withDepth(DepthChoice.of(DepthChoice.Source.FILE))
                .withAtmosphere(Atmosphere.CLEAR)
                .withFinish(Finish.NONE)
                .withOpacity(1);
        Recipe far = near.withBand(SharpBand.around(0.2, 0.1, 0));
        Course pull = moment -> moment.frame() == 0 ? near : far;
        RefocusLine line = new RefocusLine(StageCache.keepingAll());
        List<Picture> results = clip.moments().stream()
                .map(moment -> line.render(new Viewer(), clip, pull, moment, View.of(SIZE), Progress.NONE))
                .toList();
        Picture first = new Frame(0).picture(SIZE);
        Picture second = new Frame(1).picture(SIZE);
        assertThat(results.get(0).red().at(35, 40))
                .as("the card")
                .isEqualTo(first.red().at(35, 40));
        assertThat(results.get(0).red().at(110, 40))
                .as("the wall")
                .isNotEqualTo(first.red().at(110, 40));
        assertThat(results.get(1).red().at(63, 40))
                .as("the card's rim")
                .isNotEqualTo(second.red().at(63, 40));
        assertThat(results.get(1).red().at(10, 40))
                .as("the wall")
                .isEqualTo(second.red().at(10, 40));
        assertThat(near.at(new Moment(5, 200_000))).isSameAs(near);
    }

    @Test
    void aPhotoHasOneMoment() {
        record Card(Frame frame) implements Photo {
            @Override
            public String id() {
                return frame.id();
            }

            @Override
            public String depthId(DepthChoice.Source source) {
                return frame.depthId(source);
            }

            @Override
            public Size size() {
                return SIZE;
            }

            @Override
            public Picture picture(Size size) {
                return frame.picture(size);
            }

            @Override
            public DepthEstimate depth(DepthChoice.Source source) {
                return frame.depth(source);
            }
        }
        Card photo = new Card(new Frame(0));
        assertThat(photo.moments()).containsExactly(Moment.ONLY);
        assertThat(photo.at(Moment.ONLY)).isSameAs(photo);
        assertThatThrownBy(() -> photo.at(new Moment(1, 1)))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageContaining("frame=1");
    }

    @Test
    void aViewerTellsHowMuchItHolds() {
        Viewer viewer = new Viewer();
        RefocusLine line = new RefocusLine(StageCache.keepingAll());
        line.render(viewer, new Frame(0), RECIPE, View.of(SIZE), Progress.NONE);
        // Nearness, radii, and the pictures of the air, the lens, crispness, grain and opacity.
        long planes = SIZE.pixels() * Float.BYTES;
        assertThat(viewer.bytes()).isEqualTo((1 + 1 + 5 * 3) * planes);
    }
}
