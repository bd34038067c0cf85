package app.yubble.core.ladder;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatIllegalArgumentException;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.Objects;
import org.assertj.core.data.Offset;
import org.junit.jupiter.api.Test;

class HeightsTest {
    private static final Offset<Double> CLOSE = within(1e-6);

    private static Rung rung() {
        return Rung.at(0.5, 0.5);
    }

    private static Rung tied() {
        return new Rung(0.5, 0.5, true, 0, 0);
    }

    private static Rung away(double metres) {
        return new Rung(0.5, 0.5, false, metres, 0);
    }

    private static double[] of(List<Rung> rungs, double... found) {
        return Heights.of(rungs, found).nearness();
    }

    @Test
    void anOrderThatTheMapHasStaysAsItIs() {
        assertThat(of(List.of(rung(), rung(), rung()), 0.9, 0.5, 0.1))
                .containsExactly(new double[] {0.9, 0.5, 0.1}, CLOSE);
    }

    @Test
    void rungsThatContradictTheMapMeetWithRoomBetweenThem() {
        double[] heights = of(List.of(rung(), rung(), rung()), 0.3, 0.6, 0.1);
        assertThat(heights).containsExactly(new double[] {0.49, 0.41, 0.1}, CLOSE);
    }

    @Test
    void tiedRungsStandEquallyFar() {
        assertThat(of(List.of(rung(), tied(), rung()), 0.9, 0.5, 0.2))
                .containsExactly(new double[] {0.7, 0.7, 0.2}, CLOSE);
    }

    @Test
    void manyRungsFindRoomWithinTheRange() {
        List<Rung> rungs = java.util.Collections.nCopies(Rung.MOST, rung());
        double[] heights = of(rungs, new double[Rung.MOST]);
        for (int i = 1; i < heights.length; i++) {
            assertThat(heights[i - 1] - heights[i]).isGreaterThan(0.01);
        }
        assertThat(heights[0]).isLessThanOrEqualTo(1);
        assertThat(heights[Rung.MOST - 1]).isNotNegative();
    }

    @Test
    void twoDistancesSayWhatNearnessIsInMetres() {
        Heights heights = Heights.of(List.of(away(1), rung(), away(4)), new double[] {0.9, 0.5, 0.3});
        Heights.Scale scale = Objects.requireNonNull(heights.scale());
        assertThat(heights.nearness()).containsExactly(new double[] {0.9, 0.5, 0.3}, CLOSE);
        assertThat(scale.metres(0.9)).isEqualTo(1, CLOSE);
        assertThat(scale.metres(0.3)).isEqualTo(4, CLOSE);
        assertThat(scale.metres(0.05)).isInfinite();
        assertThat(Heights.of(List.of(away(1), rung()), new double[] {0.9, 0.5}).scale())
                .isNull();
    }

    @Test
    void moreDistancesLeadTheMap() {
        Heights heights = Heights.of(List.of(away(1), away(2), away(4)), new double[] {0.9, 0.8, 0.2});
        Heights.Scale scale = Objects.requireNonNull(heights.scale());
        double[] metres = {1, 2, 4};
        for (int i = 0; i < 3; i++) {
            assertThat(scale.metres(heights.nearness()[i])).isEqualTo(metres[i], within(0.01));
        }
    }

    @Test
    void rungsThatAreNoLadderAreRefused() {
        assertThatIllegalArgumentException()
                .isThrownBy(() -> Rung.ladder(List.of(tied())))
                .withMessageContaining("tied to none");
        assertThatIllegalArgumentException()
                .isThrownBy(() -> Rung.ladder(List.of(away(4), rung(), away(3))))
                .withMessage("the distances of a ladder must grow from rung to rung, found 3 m after 4 m");
        assertThatIllegalArgumentException()
                .isThrownBy(() -> Rung.ladder(java.util.Collections.nCopies(Rung.MOST + 1, rung())))
                .withMessageContaining("at most 50");
        assertThatIllegalArgumentException().isThrownBy(() -> new Rung(0.5, 0.5, true, 2, 0));
    }
}
