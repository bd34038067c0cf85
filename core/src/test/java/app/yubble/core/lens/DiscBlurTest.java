package app.yubble.core.lens;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class DiscBlurTest {
    private static final int WIDTH = 150;
    private static final int HEIGHT = 90;
    private static final KernelField.Frame FRAME = new KernelField.Frame(0, 0, WIDTH, HEIGHT);

    private static Sheet random() {
        Random random = new Random(8);
        Sheet sheet = new Sheet(5, WIDTH, HEIGHT, Shelf.open());
        for (float[] row : sheet.rows[0]) {
            for (int x = 0; x < WIDTH; x++) {
                row[x] = random.nextFloat();
            }
        }
        return sheet;
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

    private static double plain(Sheet sheet, DiscShape.Kernel kernel, int x, int y) {
        double sum = 0;
        for (DiscShape.Ring ring : kernel.rings()) {
            for (int dx = -kernel.reach(); dx <= kernel.reach(); dx++) {
                int i = dx + kernel.reach();
                sum += ring.weight() * column(sheet.rows[0], x + dx, y + 0.5 + ring.from()[i], y + 0.5 + ring.to()[i]);
            }
        }
        return sum;
    }

    @ParameterizedTest
    @CsvSource({"1,0,0,0,false", "2.6,0,1,0,false", "4.3,6,0,0.4,false", "5,7,-0.6,0.3,true", "9.5,5,0,0,true"})
    void theRunningSumsGiveWhatAPlainConvolutionGivesAlsoAtTheBorder(
            double radius, int blades, double rim, double hollow, boolean inFront) {
        Sheet sheet = random();
        KernelField kernels = new KernelField(
                new DiscShape(Disc.bladed(blades, 0.2, 15)
                        .withRim(rim)
                        .withHollow(hollow)
                        .withStretch(1.2)),
                radius,
                inFront,
                FRAME,
                0);
        float[][] blurred =
                new DiscBlur(sheet, new float[HEIGHT][WIDTH], new Window(0, 0, WIDTH, HEIGHT), kernels).result()[0];
        for (int y = 0; y < HEIGHT; y += 3) {
            for (int x = 0; x < WIDTH; x += 4) {
                assertThat((double) blurred[y][x]).isCloseTo(plain(sheet, kernels.kernel(), x, y), within(2e-4));
            }
        }
    }

    @Test
    void aSqueezedDiscFollowsThePlaceInThePicture() {
        Sheet sheet = random();
        DiscShape shape = new DiscShape(Disc.ROUND.withSqueeze(0.8));
        // Near a corner of a preview, where the squeeze is strongest.
        KernelField kernels = new KernelField(shape, 6, false, new KernelField.Frame(900, 600, 1100, 733), 0);
        float[][] blurred =
                new DiscBlur(sheet, new float[HEIGHT][WIDTH], new Window(64, 32, 128, 64), kernels).result()[0];
        for (int y = 33; y < 64; y += 5) {
            for (int x = 68; x < 128; x += 8) {
                double expected = plain(sheet, kernels.at(x, y), x, y);
                assertThat((double) blurred[y - 32][x - 64]).isCloseTo(expected, within(0.008));
            }
        }
    }

    @ParameterizedTest
    @CsvSource({"-1", "-0.5", "0.5", "1"})
    void aRimMovesLightAndKeepsItsSum(double rim) {
        DiscShape.Kernel kernel = new DiscShape(Disc.ROUND.withRim(rim)).kernel(20, false, 0, 0, 0);
        double sum = 0;
        for (DiscShape.Ring ring : kernel.rings()) {
            for (int i = 0; i < ring.from().length; i++) {
                sum += ring.weight() * (ring.to()[i] - ring.from()[i]);
            }
        }
        assertThat(sum).isCloseTo(1, within(1e-5));
        // The middle row, at the centre and just inside the rim: the brightness is 1 + 0.9 rim (2 rho^2 - 1).
        double level = 1 / (Math.PI * 400);
        assertThat(brightness(kernel, 0)).isCloseTo(level * (1 - 0.675 * rim), within(level * 0.05));
        assertThat(brightness(kernel, 18)).isCloseTo(level * (1 + 0.675 * rim), within(level * 0.05));
    }

    private static double brightness(DiscShape.Kernel kernel, int dx) {
        double sum = 0;
        for (DiscShape.Ring ring : kernel.rings()) {
            int i = dx + kernel.reach();
            sum += ring.from()[i] < -0.5 && ring.to()[i] > 0.5 ? ring.weight() : 0;
        }
        return sum;
    }
}
