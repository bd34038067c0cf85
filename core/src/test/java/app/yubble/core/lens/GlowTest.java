package app.yubble.core.lens;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class GlowTest {
    /** Levels whose cells are narrower than a stripe, as wide, and twice as wide, as beyond a radius of 320. */
    @ParameterizedTest
    @CsvSource({"2,64", "6,64", "6,128", "7,0", "7,64", "7,128", "7,192"})
    void aStripeReadsBetweenTheMiddlesOfCellsWhereverItBegins(int level, int x0) {
        int cells = 12 << Math.max(0, 6 - level);
        float[][] rising = new float[3][cells];
        for (float[] row : rising) {
            for (int i = 0; i < cells; i++) {
                row[i] = i;
            }
        }
        float[] read = new float[64];
        new Glow.Laid(level, rising, null).fillRow(rising, 1 << level, x0, read);
        for (int i = 0; i < read.length; i++) {
            double place = (x0 + i + 0.5) / (1 << level) - 0.5;
            assertThat((double) read[i]).as("pixel %d", x0 + i).isCloseTo(Math.max(0, place), within(1e-4));
        }
    }
}
