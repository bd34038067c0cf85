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

    @Test
    void aPartIsFilledAsTheWholeIsWhereverItBegins() {
        int width = 96;
        float[] values = new float[width * width * 4];
        float[] known = new float[width * width];
        for (int i = 0; i < known.length; i++) {
            int x = i % width;
            int y = i / width;
            known[i] = Math.hypot(x - 50, y - 47) < 6 ? 0 : 1;
            values[4 * i] = known[i] * (float) Math.sin(x * 0.3 + y * 0.2);
        }
        for (int left : new int[] {16, 17, 22}) {
            float[] whole = values.clone();
            HoleFill.fill(whole, known.clone(), width, width, 0, 0);
            int size = 64;
            float[] part = new float[size * size * 4];
            float[] partKnown = new float[size * size];
            for (int y = 0; y < size; y++) {
                System.arraycopy(values, ((y + 16) * width + left) * 4, part, y * size * 4, size * 4);
                System.arraycopy(known, (y + 16) * width + left, partKnown, y * size, size);
            }
            HoleFill.fill(part, partKnown, size, size, left, 16);
            for (int y = 0; y < size; y++) {
                for (int x = 0; x < size; x++) {
                    assertThat(part[(y * size + x) * 4])
                            .as("%d,%d from %d", x, y, left)
                            .isCloseTo(whole[((y + 16) * width + left + x) * 4], within(1e-5f));
                }
            }
        }
    }
}
