package app.yubble.core.setting;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import app.yubble.core.lens.Disc;
import app.yubble.core.recipe.DepthChoice;
import app.yubble.core.recipe.Recipe;
import java.util.List;
import org.junit.jupiter.api.Test;

class DeclaredTest {
    /** A record that forgets to check one of its settings. */
    private record Forgetful(
            @Setting(means = "seen") double seen,
            @Setting(means = "forgotten") double forgotten) {
        Forgetful {
            Declared.of(Forgetful.class).check(seen);
        }
    }

    @Test
    void whatIsUsualIsMadeOfTheDeclarations() {
        assertThat(Recipe.INITIAL.glints().strength()).isEqualTo(0.25);
        assertThat(Recipe.INITIAL.disc().stretch()).isEqualTo(1);
        assertThat(Recipe.INITIAL.depth().source()).isEqualTo(DepthChoice.Source.ESTIMATED);
        assertThat(Recipe.INITIAL.touchups()).isEmpty();
        assertThat(Recipe.INITIAL.band().coversEverything()).isTrue();
    }

    @Test
    void oneNumberIsChangedByItsName() {
        Declared<Disc> disc = Declared.of(Disc.class);
        assertThat(disc.with(Disc.ROUND, "rim", -0.4)).isEqualTo(Disc.ROUND.withRim(-0.4));
        assertThat(disc.with(Disc.ROUND, "blades", 7).blades()).isEqualTo(7);
        assertThatThrownBy(() -> disc.with(Disc.ROUND, "blades", 6.5)).hasMessageContaining("whole number");
        assertThatThrownBy(() -> disc.with(Disc.ROUND, "rim", 2)).hasMessageContaining("rim must be in -1..1, found 2");
        assertThatThrownBy(() -> disc.with(Disc.ROUND, "colour", 2))
                .hasMessageContaining("there are blades, curvature, turn");
    }

    @Test
    void rangesKnowTheirEndsAndTheirUnits() {
        Declared<Disc> disc = Declared.of(Disc.class);
        assertThatThrownBy(() -> disc.with(Disc.ROUND, "turn", 360))
                .hasMessage("turn must be in 0..360 degrees, 360 excluded, found 360");
        assertThat(disc.with(Disc.ROUND, "turn", 0).turn()).isZero();
        assertThatThrownBy(() -> disc.with(Disc.ROUND, "hollow", Double.NaN)).hasMessageContaining("0..0.8");
    }

    @Test
    void aSettingThatIsNotCheckedIsNoticedAtOnce() {
        assertThatThrownBy(() -> new Forgetful(0.5, 0.5)).hasMessageContaining("checks 1 of 2");
        assertThat(List.of(Declared.names(DepthChoice.Source.class)))
                .containsExactly("\"estimated\", \"camera\", \"file\"");
    }
}
