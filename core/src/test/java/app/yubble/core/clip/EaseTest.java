package app.yubble.core.clip;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import app.yubble.core.clip.Ease.CurvePoint;
import java.util.List;
import org.junit.jupiter.api.Test;

class EaseTest {
    @Test
    void smoothIsThreeTSquaredLessTwoTCubed() {
        assertThat(Ease.SMOOTH.share(0.25)).isCloseTo(0.15625, within(1e-12));
        assertThat(Ease.SMOOTH.share(0.5)).isEqualTo(0.5);
        assertThat(Ease.SMOOTH.share(-1)).isZero();
        assertThat(Ease.SMOOTH.share(2)).isEqualTo(1);
    }

    @Test
    void holdJumpsAtTheNextMarkAndStraightGoesEvenly() {
        assertThat(Ease.HOLD.share(0.999)).isZero();
        assertThat(Ease.HOLD.share(1)).isEqualTo(1);
        assertThat(Ease.STRAIGHT.share(0.3)).isEqualTo(0.3);
    }

    @Test
    void aDrawnEaseGoesThroughItsPointsAndNeverSwingsOverThem() {
        Ease drawn = Ease.drawn(List.of(new CurvePoint(0.2, 0.7), new CurvePoint(0.6, 0.7), new CurvePoint(0.8, 0.1)));
        assertThat(drawn.share(0)).isZero();
        assertThat(drawn.share(0.2)).isCloseTo(0.7, within(1e-12));
        assertThat(drawn.share(0.4)).isCloseTo(0.7, within(1e-12));
        assertThat(drawn.share(0.8)).isCloseTo(0.1, within(1e-12));
        assertThat(drawn.share(1)).isEqualTo(1);
        for (double t = 0; t <= 1; t += 0.001) {
            assertThat(drawn.share(t)).isBetween(0.0, 1.0);
        }
    }

    @Test
    void aDrawnEaseWithoutPointsIsStraight() {
        assertThat(Ease.drawn(List.of()).share(0.37)).isCloseTo(0.37, within(1e-12));
    }

    @Test
    void pointsThatGoBackInTimeAreRefused() {
        List<CurvePoint> back = List.of(new CurvePoint(0.5, 0.2), new CurvePoint(0.4, 0.3));
        assertThatThrownBy(() -> Ease.drawn(back)).hasMessageContaining("follow each other");
    }
}
