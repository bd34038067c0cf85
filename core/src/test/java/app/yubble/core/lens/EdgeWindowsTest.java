package app.yubble.core.lens;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Region;
import app.yubble.core.raster.Size;
import java.util.Random;
import org.junit.jupiter.api.Test;

/** Against sums pixel by pixel, as one would write them down. */
class EdgeWindowsTest {
    private static final Size SIZE = new Size(96, 32);
    private static final int REACH = 2;
    private static final float LEAST_STEP = 2;
    private static final float STEP_SHARE = 0.25f;

    private final Picture picture = Picture.blank(SIZE);
    private final Plane radius = new Plane(SIZE);
    private final long[][] mixed = new long[SIZE.height()][2];

    EdgeWindowsTest() {
        Random random = new Random(7);
        for (int i = 0; i < radius.samples().length; i++) {
            int x = i % SIZE.width();
            picture.red().samples()[i] = random.nextFloat();
            picture.green().samples()[i] = random.nextFloat();
            // Some is lifted and says nothing.
            picture.blue().samples()[i] = 1.6f * random.nextFloat();
            radius.samples()[i] = (x < 40 ? -9 : 14) + random.nextFloat();
            if (x == 39 || x == 40) {
                mixed[i / SIZE.width()][0] |= 1L << x;
            }
        }
    }

    @Test
    void sidesAreTheMeansOfWhatLiesOnThem() {
        EdgeWindows windows = windows();
        windows.add(37, 9, 6);
        windows.add(39, 20, 2);
        windows.measure(LEAST_STEP, STEP_SHARE);
        for (int lane = 0; lane < windows.lanes(); lane++) {
            if (windows.isWanted(lane)) {
                compare(windows, lane);
            }
        }
    }

    @Test
    void beyondThePictureNothingIsWeighed() {
        EdgeWindows windows = windows();
        windows.add(0, 0, 3);
        windows.add(SIZE.width() - 2, SIZE.height() - 1, 2);
        windows.measure(LEAST_STEP, STEP_SHARE);
        for (int lane = 0; lane < windows.lanes(); lane++) {
            if (windows.isWanted(lane)) {
                compare(windows, lane);
            }
        }
    }

    @Test
    void aRunLongerThanTheRoomIsToldSo() {
        EdgeWindows windows = windows();
        assertThat(windows.room()).isEqualTo(EdgeWindows.LANES);
        windows.add(0, 5, 90);
        assertThat(windows.room()).isEqualTo(EdgeWindows.LANES - 90 - 2 * REACH);
        windows.add(0, 6, windows.room());
        assertThat(windows.room()).isZero();
        windows.clear();
        assertThat(windows.lanes()).isZero();
    }

    private void compare(EdgeWindows windows, int lane) {
        int x = windows.x(lane);
        int y = windows.y(lane);
        float own = radius.at(x, y);
        float step = Math.max(LEAST_STEP, STEP_SHARE * Math.abs(own));
        boolean farther = windows.farther[lane] > windows.nearer[lane];
        if (farther) {
            windows.setNearerLike(lane);
        } else {
            windows.setFartherLike(lane);
        }
        windows.sum();
        EdgeWindows.Side near = new EdgeWindows.Side();
        EdgeWindows.Side far = new EdgeWindows.Side();
        windows.read(lane, near, far);
        double[] like = new double[3];
        double[] beyond = new double[3];
        for (int py = Math.max(0, y - REACH); py <= Math.min(SIZE.height() - 1, y + REACH); py++) {
            for (int px = Math.max(0, x - REACH); px <= Math.min(SIZE.width() - 1, x + REACH); px++) {
                float apart = radius.at(px, py) - own;
                double[] to = Math.abs(apart) <= step ? like : apart > 0 == farther ? beyond : new double[3];
                double weight = weight(px, py) / (1 + (px - x) * (px - x) + (py - y) * (py - y));
                to[0] += weight;
                to[1] += weight * picture.green().at(px, py);
                to[2] += weight * radius.at(px, py);
            }
        }
        same(farther ? near : far, like);
        same(farther ? far : near, beyond);
    }

    private static void same(EdgeWindows.Side side, double[] sums) {
        assertThat((double) side.weight).isEqualTo(sums[0], within(1e-4));
        if (sums[0] > 0) {
            assertThat((double) side.g).isEqualTo(sums[1] / sums[0], within(1e-4));
            assertThat((double) side.radius).isEqualTo(sums[2] / sums[0], within(1e-3));
        }
    }

    private double weight(int x, int y) {
        boolean isMixed = (mixed[y][x >> 6] & 1L << x) != 0;
        return picture.blue().at(x, y) > 1.5f ? 0 : isMixed ? 1e-3 : 1;
    }

    private EdgeWindows windows() {
        try (Shelf shelf = Shelf.open()) {
            TilePixels pixels =
                    new TilePixels(picture, radius, Lift.of(Glints.NONE.lift(picture)), Region.all(SIZE), shelf);
            return new EdgeWindows(pixels, mixed, 1.5f, REACH);
        }
    }
}
