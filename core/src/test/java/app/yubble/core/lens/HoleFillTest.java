package app.yubble.core.lens;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class HoleFillTest {
    @ParameterizedTest
    @CsvSource({"16,16", "37,21", "1,40", "5,1"})
    void aHoleInAConstantBecomesTheConstantWhateverTheSize(int width, int height) {
        float[] values = new float[width * height * 4];
        float[] known = new float[width * height];
        values[0] = 0.3f;
        values[1] = 0.6f;
        values[3] = 12;
        known[0] = 1;
        HoleFill.fill(values, known, width, height, 0, 0);
        for (int i = 0; i < width * height; i++) {
            assertThat(values[4 * i]).isCloseTo(0.3f, within(1e-5f));
            assertThat(values[4 * i + 1]).isCloseTo(0.6f, within(1e-5f));
            assertThat(values[4 * i + 3]).isCloseTo(12, within(1e-3f));
            assertThat(known[i]).isEqualTo(1);
        }
    }

    @Test
    void whatIsKnownStaysAndAHoleLiesBetweenItsSides() {
        int width = 64;
        float[] values = new float[width * 32 * 4];
        float[] known = new float[width * 32];
        Arrays.fill(known, 1);
        for (int i = 0; i < known.length; i++) {
            int x = i % width;
            values[4 * i] = x < 32 ? 0 : 1;
            if (x >= 24 && x < 40) {
                known[i] = 0;
                values[4 * i] = 99;
            }
        }
        HoleFill.fill(values, known, width, 32, 0, 0);
        for (int x = 0; x < width; x++) {
            float found = values[4 * (16 * width + x)];
            if (x < 24 || x >= 40) {
                assertThat(found).isEqualTo(x < 32 ? 0 : 1);
            } else {
                assertThat(found).isBetween(0f, 1f);
            }
        }
        assertThat(values[4 * (16 * width + 25)]).isLessThan(0.2f);
        assertThat(values[4 * (16 * width + 38)]).isGreaterThan(0.8f);
    }
}
