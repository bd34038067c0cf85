package app.yubble.core.recipe;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import app.yubble.core.clip.Ease;
import app.yubble.core.clip.Moment;
import app.yubble.core.focus.SharpBand;
import app.yubble.core.follow.DepthUnder;
import app.yubble.core.follow.Follow;
import app.yubble.core.follow.Put;
import app.yubble.core.follow.TrackPoint;
import app.yubble.core.follow.Wake;
import app.yubble.core.follow.Way;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Size;
import app.yubble.core.shape.BlurShape;
import app.yubble.core.shape.Cover;
import app.yubble.core.shape.Place;
import app.yubble.core.shape.ShapeMark;
import app.yubble.core.shape.Tie;
import app.yubble.core.touchup.Span;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import org.junit.jupiter.api.Test;

class FollowingTest {
    private static final SharpBand BY_HAND = new SharpBand(0.95, 0.85, 0.02, 0.03);

    /** Depth that grows by a tenth a second, hidden from 4 to 5 s, at 25 frames a second for ten seconds. */
    private static final Wake GROWING = growing();

    private static Wake growing() {
        List<Wake.Under> all = new ArrayList<>();
        for (int i = 0; i < 250; i++) {
            double seconds = i / 25.0;
            boolean hidden = seconds >= 4 && seconds < 5;
            TrackPoint point = new TrackPoint(0, 0, !hidden, !hidden);
            all.add(Wake.Under.of(seconds, hidden ? 0.9 : seconds / 10, point));
        }
        return new Wake(all);
    }

    /** From the left to the right in ten seconds, one second of which it is hidden. */
    private static final Way RISING = new Way(
            List.of(new Way.At(0, 0, 0.5), new Way.At(4, 0.4, 0.5), new Way.At(5, 0.5, 0.5), new Way.At(10, 1, 0.5)));

    private static Follow follow(String id, double lead, Span span) {
        return new Follow(id, "", List.of(new Put(0, 0.5, 0.5)), false, true, 0.04, lead, 0.2, span);
    }

    private static SharpBand at(Recipe recipe, double seconds) {
        return new Following(recipe, follow -> GROWING, follow -> RISING)
                .at(new Moment(0, Math.round(seconds * 1e6)))
                .band();
    }

    private static Recipe following(Follow... follows) {
        return Recipe.INITIAL.withBand(BY_HAND).withFollows(List.of(follows));
    }

    @Test
    void theBandLiesAroundTheDepthUnderThePoint() {
        SharpBand band = at(following(follow("a", 0, Span.ALL)), 3);
        assertThat(band.near()).isCloseTo(0.32, within(1e-3));
        assertThat(band.far()).isCloseTo(0.28, within(1e-3));
        assertThat(band.nearFalloff()).isEqualTo(BY_HAND.nearFalloff());
        assertThat(band.farFalloff()).isEqualTo(BY_HAND.farFalloff());
    }

    @Test
    void itCanLeadOrLag() {
        assertThat(at(following(follow("a", 1, Span.ALL)), 2).centre()).isCloseTo(0.3, within(1e-3));
        assertThat(at(following(follow("a", -1, Span.ALL)), 2).centre()).isCloseTo(0.1, within(1e-3));
    }

    @Test
    void whileThePointIsHiddenDepthGoesOnFromWhereItWasSeenToWhereItIsNext() {
        assertThat(at(following(follow("a", 0, Span.ALL)), 4.5).centre()).isCloseTo(0.45, within(5e-3));
    }

    @Test
    void outsideItsTimeTheBandIsThatOfTheRecipeAndFadesOver() {
        Recipe recipe = following(follow("a", 0, new Span(2, 8, 1)));
        assertThat(at(recipe, 1)).isEqualTo(BY_HAND);
        assertThat(at(recipe, 2.5).centre()).isCloseTo((0.9 + 0.25) / 2, within(2e-3));
        assertThat(at(recipe, 3.5).centre()).isCloseTo(0.35, within(2e-3));
    }

    @Test
    void marksTakeOverBetweenTheFirstAndTheLastAndHandOverSmoothly() {
        Recipe recipe = following(follow("a", 0, Span.ALL))
                .withMarks(Marks.NONE.withBand(
                        List.of(new BandMark(6, Ease.HOLD, BY_HAND), new BandMark(7, Ease.HOLD, BY_HAND))));
        assertThat(at(recipe, 3).centre()).isCloseTo(0.3, within(1e-3));
        assertThat(at(recipe, 6)).isEqualTo(BY_HAND);
        assertThat(at(recipe, 6.5)).isEqualTo(BY_HAND);
        assertThat(at(recipe, 7)).isEqualTo(BY_HAND);
        assertThat(at(recipe, 7.25).centre()).isCloseTo((0.9 + 0.725) / 2, within(2e-3));
        assertThat(at(recipe, 8).centre()).isCloseTo(0.8, within(1e-3));
    }

    @Test
    void aMarkCanLeaveTheTimeAfterItToWhatIsFollowed() {
        Recipe recipe = following(follow("a", 0, Span.ALL))
                .withMarks(Marks.NONE.withBand(
                        List.of(new BandMark(1, Ease.SMOOTH, BY_HAND, true), new BandMark(7, Ease.HOLD, BY_HAND))));
        assertThat(at(recipe, 3).centre()).isCloseTo(0.3, within(1e-3));
        assertThat(at(recipe, 7)).isEqualTo(BY_HAND);
    }

    @Test
    void whatWasNotTrackedOrIsNoFocusChangesNothing() {
        Recipe recipe = following(follow("a", 0, Span.ALL));
        assertThat(new Following(recipe, none -> null, none -> null)
                        .at(new Moment(0, 0))
                        .band())
                .isEqualTo(BY_HAND);
        Follow other = new Follow("b", "", List.of(new Put(0, 0, 0)), false, false, 0.1, 0, 0, Span.ALL);
        assertThat(at(following(other), 3)).isEqualTo(BY_HAND);
        assertThat(new Wake(List.of(new Wake.Under(0, 0.5, 0))).nearnessAt(0, 1))
                .isEmpty();
    }

    private static BlurShape tied(String to, double since, ShapeMark... marks) {
        BlurShape plain = BlurShape.of("s", BlurShape.Form.ELLIPSE, new Place(0.3, 0.4, 0.1, 0.1, 0));
        return new BlurShape(
                "s",
                "",
                plain.form(),
                plain.place(),
                0,
                0,
                20,
                false,
                true,
                Cover.ALL,
                new Tie(to, since),
                List.of(marks),
                new Span(1, 9, 0));
    }

    private static List<BlurShape> shapesAt(double seconds, Recipe recipe) {
        return new Following(recipe, follow -> GROWING, follow -> follow.id().equals("a") ? RISING : null)
                .at(new Moment(0, Math.round(seconds * 1e6)))
                .shapes();
    }

    @Test
    void aBlurShapeMovesAlongWithThePointItIsTiedTo() {
        Recipe recipe = following(follow("a", 0, Span.ALL)).withShapes(List.of(tied("a", 2)));
        assertThat(shapesAt(2, recipe).get(0).place().x()).isCloseTo(0.3, within(1e-9));
        assertThat(shapesAt(4.5, recipe).get(0).place().x()).isCloseTo(0.55, within(1e-9));
        assertThat(shapesAt(4.5, recipe).get(0).place().y()).isCloseTo(0.4, within(1e-9));
        assertThat(shapesAt(0.5, recipe)).as("before its time").isEmpty();
        Recipe marked = following(follow("a", 0, Span.ALL))
                .withShapes(List.of(tied(
                        "a",
                        2,
                        new ShapeMark(2, Ease.STRAIGHT, new Place(0.3, 0.4, 0.1, 0.1, 0)),
                        new ShapeMark(4, Ease.HOLD, new Place(0.3, 0.6, 0.1, 0.1, 0)))));
        Place both = shapesAt(3, marked).get(0).place();
        assertThat(both.x()).isCloseTo(0.4, within(1e-9));
        assertThat(both.y()).isCloseTo(0.5, within(1e-9));
    }

    @Test
    void aBlurShapeWhosePointIsNotKnownStaysWhereItIs() {
        Recipe untracked = following(follow("b", 0, Span.ALL)).withShapes(List.of(tied("b", 2)));
        assertThat(shapesAt(8, untracked).get(0).place().x()).isEqualTo(0.3);
        Recipe gone = following(follow("a", 0, Span.ALL)).withShapes(List.of(tied("other", 2)));
        assertThat(shapesAt(8, gone).get(0).place().x()).isEqualTo(0.3);
    }

    @Test
    void laterFollowsComeOverEarlierOnes() {
        Follow late = follow("b", 2, new Span(5, 36_000, 0));
        assertThat(at(following(follow("a", 0, Span.ALL), late), 3).centre()).isCloseTo(0.3, within(1e-3));
        assertThat(at(following(follow("a", 0, Span.ALL), late), 6).centre()).isCloseTo(0.8, within(1e-3));
    }

    @Test
    void faultyFollowsAreRefused() {
        assertThatThrownBy(() -> follow(" ", 0, Span.ALL)).hasMessageContaining("id");
        assertThatThrownBy(() -> follow("a", 6, Span.ALL)).hasMessageContaining("lead");
        assertThatThrownBy(() -> following(follow("a", 0, Span.ALL), follow("a", 1, Span.ALL)))
                .hasMessageContaining("one id");
        assertThatThrownBy(() -> new Follow("a", "", List.of(), false, true, 0, 0, 0, Span.ALL))
                .hasMessageContaining("1 to");
        List<Put> twice = List.of(new Put(1, 0, 0), new Put(1, 1, 1));
        assertThatThrownBy(() -> new Follow("a", "", twice, false, true, 0, 0, 0, Span.ALL))
                .hasMessageContaining("follow each");
    }

    @Test
    void depthUnderAPointOfAThinThingIsThatOfTheThing() {
        Plane map = new Plane(new Size(400, 300));
        Arrays.fill(map.samples(), 0.1f);
        for (int y = 0; y < 300; y++) {
            for (int x = 199; x < 202; x++) {
                map.samples()[y * 400 + x] = 0.6f;
            }
        }
        assertThat(DepthUnder.of(map, 200.5 / 400, 0.5)).isCloseTo(0.6, within(1e-6));
        assertThat(DepthUnder.of(map, 180.5 / 400, 0.5)).isCloseTo(0.1, within(1e-6));
        assertThat(DepthUnder.of(map, 1, 1)).isCloseTo(0.1, within(1e-6));
    }
}
