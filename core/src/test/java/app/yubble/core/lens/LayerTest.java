package app.yubble.core.lens;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import app.yubble.core.Pictures;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Region;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class LayerTest {
    private static Layer random(int width, int height) {
        Random random = new Random(8);
        Layer layer = new Layer(width, height);
        for (float[][] channel : layer.rows) {
            for (float[] row : channel) {
                for (int x = 0; x < width; x++) {
                    row[x] = random.nextFloat();
                }
            }
        }
        for (float[] row : layer.rows[Layer.NOT_NEARER]) {
            java.util.Arrays.fill(row, 1);
        }
        return layer;
    }

    /** The integral of a column of pixels, each one high, from {@code from} to {@code to}; nothing outside. */
    private static double column(float[][] rows, int x, double from, double to) {
        double sum = 0;
        for (int y = 0; y < rows.length; y++) {
            double share = Math.min(to, y + 1) - Math.max(from, y);
            if (share > 0 && x >= 0 && x < rows[y].length) {
                sum += share * rows[y][x];
            }
        }
        return sum;
    }

    @ParameterizedTest
    @CsvSource({"1,0,false", "2.6,0,false", "4.3,6,false", "5,7,true"})
    void theRunningSumsGiveWhatAPlainConvolutionGives(double radius, int blades, boolean inFront) {
        Layer layer = random(50, 44);
        Disc.Spans spans = new Disc(blades, blades == 0 ? 0 : 0.2, 15).spans(radius, inFront);
        Layer blurred = layer.blurred(spans, 0, 43);
        int reach = spans.reach();
        for (int y = reach + 1; y < 43 - reach; y += 3) {
            for (int x = reach + 1; x < 49 - reach; x += 4) {
                double sum = 0;
                for (int dx = -reach; dx <= reach; dx++) {
                    double centre = y + 0.5;
                    sum += column(
                            layer.rows[0], x + dx, centre + spans.from()[dx + reach], centre + spans.to()[dx + reach]);
                }
                assertThat((double) blurred.rows[0][y][x]).isCloseTo(sum / spans.area(), within(1e-4));
            }
        }
    }

    @Test
    void whatIsHiddenIsLeftOutOfTheMean() {
        Layer layer = new Layer(40, 40);
        // The left half is shown and grey; the right half is hidden behind something nearer.
        for (int y = 0; y < 40; y++) {
            for (int x = 0; x < 20; x++) {
                layer.rows[0][y][x] = 0.4f;
                layer.rows[Layer.COVERAGE][y][x] = 1;
                layer.rows[Layer.NOT_NEARER][y][x] = 1;
            }
        }
        Layer blurred = layer.blurred(Disc.ROUND.spans(5, false), 0, 39);
        for (int x = 8; x < 23; x++) {
            assertThat(blurred.rows[0][20][x]).as("at %d", x).isCloseTo(0.4f, within(2e-3f));
            assertThat(blurred.rows[Layer.COVERAGE][20][x]).isCloseTo(1f, within(2e-3f));
        }
    }

    @Test
    void doublingKeepsARampARamp() {
        Layer layer = new Layer(10, 6);
        for (float[] row : layer.rows[1]) {
            for (int x = 0; x < 10; x++) {
                row[x] = x + 0.5f;
            }
        }
        float[] row = layer.doubled().rows[1][5];
        for (int x = 1; x < 19; x++) {
            assertThat(row[x]).isCloseTo((x + 0.5f) / 2, within(1e-5f));
        }
    }

    @Test
    void layingOverIsTheUsualRule() {
        Layer below = new Layer(4, 4);
        Layer above = new Layer(4, 4);
        below.rows[2][1][1] = 0.8f;
        below.rows[Layer.COVERAGE][1][1] = 1;
        above.rows[2][1][1] = 0.1f;
        above.rows[Layer.COVERAGE][1][1] = 0.25f;
        below.under(above);
        assertThat(below.rows[2][1][1]).isCloseTo(0.1f + 0.75f * 0.8f, within(1e-6f));
        assertThat(below.rows[Layer.COVERAGE][1][1]).isCloseTo(1f, within(1e-6f));
    }

    @Test
    void holesAreFilledFromAroundThemAndNothingElseChanges() {
        int side = 64;
        float[] values = new float[side * side * 4];
        float[] known = new float[side * side];
        for (int i = 0; i < known.length; i++) {
            boolean hole = Math.hypot(i % side - 30, i / side - 30) < 9;
            known[i] = hole ? 0 : 1;
            values[i * 4] = hole ? 99 : 0.3f;
            values[i * 4 + 1] = hole ? 99 : i % side / 64f;
        }
        float[] before = values.clone();
        float[] wasKnown = known.clone();
        HoleFill.fill(values, known, side, side, 5);
        for (int i = 0; i < known.length; i++) {
            if (wasKnown[i] == 1) {
                assertThat(values[i * 4 + 1]).isEqualTo(before[i * 4 + 1]);
            } else {
                assertThat(values[i * 4]).isCloseTo(0.3f, within(1e-4f));
                assertThat(values[i * 4 + 1]).isCloseTo(i % side / 64f, within(0.12f));
            }
        }
    }

    @Test
    void stepsStartAtNothingAndEndAtTheLargestRadius() {
        float[] steps = RadiusSteps.upTo(87.3f);
        assertThat(steps[0]).isZero();
        assertThat(steps[steps.length - 1]).isEqualTo(87.3f);
        for (int i = 1; i < steps.length; i++) {
            assertThat(steps[i]).isGreaterThan(steps[i - 1]);
        }
    }

    @Test
    void aTileNeedsTheMarginOfTheBlurThatReachesIt() {
        Plane radius = Pictures.plane(1024, 512, (x, y) -> x >= 900 ? 60 : 2);
        Reach reach = new Reach(radius);
        assertThat(reach.overall()).isEqualTo(60f);
        assertThat(reach.into(new Region(0, 0, 256, 256))).isLessThan(10);
        assertThat(reach.into(new Region(768, 0, 256, 256))).isGreaterThanOrEqualTo(60);
        assertThat(reach.into(new Region(600, 0, 256, 256))).isGreaterThanOrEqualTo(60);
    }
}
