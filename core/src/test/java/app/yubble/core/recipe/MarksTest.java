package app.yubble.core.recipe;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import app.yubble.core.clip.Ease;
import app.yubble.core.clip.Moment;
import app.yubble.core.focus.Gain;
import app.yubble.core.focus.SharpBand;
import app.yubble.core.touchup.Span;
import app.yubble.core.touchup.Stroke;
import app.yubble.core.touchup.Touchup;
import java.util.List;
import org.junit.jupiter.api.Test;

class MarksTest {
    private static final SharpBand NEAR = new SharpBand(0.9, 0.7, 0.1, 0.2, 0.1, 0);
    private static final SharpBand FAR = new SharpBand(0.3, 0.2, 0.1, 0.1, 0, 0);

    private static Moment at(double seconds) {
        return new Moment((int) Math.round(seconds * 24), Math.round(seconds * 1e6));
    }

    private static Recipe pulled(Ease ease) {
        return Recipe.INITIAL.withMarks(
                Marks.NONE.withBand(List.of(new BandMark(1, ease, NEAR), new BandMark(3, Ease.HOLD, FAR))));
    }

    @Test
    void aPulledBandFollowsTheEaseAtEveryMoment() {
        Recipe recipe = pulled(Ease.SMOOTH);
        for (int frame = 0; frame < 96; frame++) {
            Moment moment = new Moment(frame, frame * 1_000_000L / 24);
            double t = Math.max(0, Math.min(1, (moment.micros() / 1e6 - 1) / 2));
            double share = 3 * t * t - 2 * t * t * t;
            SharpBand band = recipe.at(moment).band();
            assertThat(band.near()).isCloseTo(0.9 - 0.6 * share, within(1e-9));
            assertThat(band.far()).isCloseTo(0.7 - 0.5 * share, within(1e-9));
            assertThat(band.tiltAcross()).isCloseTo(0.1 - 0.1 * share, within(1e-9));
        }
    }

    @Test
    void beforeTheFirstMarkAndAfterTheLastValuesStay() {
        assertThat(pulled(Ease.SMOOTH).at(at(0)).band()).isEqualTo(NEAR);
        assertThat(pulled(Ease.SMOOTH).at(at(100)).band()).isEqualTo(FAR);
        assertThat(pulled(Ease.HOLD).at(at(2.9)).band()).isEqualTo(NEAR);
    }

    @Test
    void whatTheLineGetsHasNoMarks() {
        assertThat(pulled(Ease.SMOOTH).at(at(2)).marks()).isEqualTo(Marks.NONE);
    }

    @Test
    void anIrisMovesInStops() {
        Recipe recipe = Recipe.INITIAL.withMarks(new Marks(
                List.of(),
                List.of(new ApertureMark(0, Ease.STRAIGHT, 2, 20), new ApertureMark(2, Ease.STRAIGHT, 8, 40)),
                List.of(new GainMark(0, Ease.STRAIGHT, new Gain(0, 1)), new GainMark(2, Ease.STRAIGHT, new Gain(1, 2))),
                List.of(new OpacityMark(0, Ease.STRAIGHT, 0), new OpacityMark(2, Ease.STRAIGHT, 1))));
        Recipe half = recipe.at(at(1));
        assertThat(half.aperture().fNumber()).isCloseTo(4, within(1e-9));
        assertThat(half.aperture().strength()).isEqualTo(30);
        assertThat(half.gain()).isEqualTo(new Gain(0.5, 1.5));
        assertThat(half.opacity()).isEqualTo(0.5);
        assertThat(half.band()).isEqualTo(recipe.band());
    }

    @Test
    void marksThatDoNotFollowEachOtherAreRefused() {
        List<BandMark> twice = List.of(new BandMark(1, Ease.SMOOTH, NEAR), new BandMark(1, Ease.SMOOTH, FAR));
        assertThatThrownBy(() -> Marks.NONE.withBand(twice))
                .hasMessageContaining("marks of the band must follow each other");
    }

    @Test
    void aTouchupActsOverItsSpanAndFades() {
        Touchup all = Touchup.of("a", Touchup.Action.BLUR, 0.8, 0, new Stroke(Stroke.Brush.of(0.1), 0.5f, 0.5f, 1));
        Touchup some = all.withSpan(new Span(1, 3, 0.5));
        Recipe recipe = Recipe.INITIAL.withTouchups(List.of(all, some.withId("b")));
        assertThat(strengths(recipe, 0)).containsExactly(0.8, 0.0);
        assertThat(strengths(recipe, 1.25)).containsExactly(0.8, 0.4);
        assertThat(strengths(recipe, 2)).containsExactly(0.8, 0.8);
        assertThat(strengths(recipe, 3)).containsExactly(0.8, 0.0);
    }

    private static List<Double> strengths(Recipe recipe, double seconds) {
        return recipe.at(at(seconds)).touchups().stream().map(Touchup::strength).toList();
    }
}
