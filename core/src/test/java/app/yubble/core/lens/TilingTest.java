package app.yubble.core.lens;

import static org.assertj.core.api.Assertions.assertThat;

import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Region;
import app.yubble.core.raster.Size;
import java.util.Arrays;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class TilingTest {
    private static final Size SIZE = new Size(5000, 3300);
    private static final Picture ANY = Picture.blank(SIZE);

    private static LensRender.Job job(Plane radius) {
        RadiusField field = new RadiusField(radius);
        Reach reach = field.reach();
        return new LensRender.Job(
                ANY,
                field,
                Lift.of(radius),
                reach,
                new DiscShape(Disc.ROUND),
                LensRender.Plan.of(reach.overall(), SIZE));
    }

    private static Plane everywhere(float value) {
        Plane radius = new Plane(SIZE);
        Arrays.fill(radius.samples(), value);
        return radius;
    }

    @ParameterizedTest
    @CsvSource({"0", "3", "-90", "400"})
    void tilesCoverTheRegionOnceAndKnowWhatReachesThem(float radius) {
        LensRender.Job job = job(everywhere(radius));
        Region region = new Region(130, 90, 4700, 3100);

        List<Tiling.Tile> tiles = Tiling.of(job, region);

        assertThat(tiles.stream().mapToLong(tile -> tile.core().size().pixels()).sum())
                .isEqualTo(region.size().pixels());
        for (Tiling.Tile tile : tiles) {
            Region known = tile.core().grown((int) Math.abs(radius), SIZE);
            assertThat(tile.core().meet(region)).isEqualTo(tile.core());
            assertThat(tile.box().meet(known)).isEqualTo(known);
            assertThat(tile.box().size().pixels()).isLessThanOrEqualTo(7_000_000);
            for (Tiling.Tile other : tiles) {
                assertThat(other == tile || other.core().meet(tile.core()) == null)
                        .isTrue();
            }
        }
    }

    @Test
    void aTileKnowsOfAWideBlurOnlyOnTheSideFromWhichItComes() {
        Plane radius = everywhere(0);
        for (int y = 0; y < SIZE.height(); y++) {
            Arrays.fill(radius.samples(), y * SIZE.width(), y * SIZE.width() + 1000, 200);
        }
        Region tile = new Region(1100, 1000, 800, 800);

        Region box = Tiling.of(job(radius), tile).get(0).box();

        assertThat(box.x()).isLessThanOrEqualTo(900);
        assertThat(box.x() + box.width()).isLessThan(2100);
    }
}
