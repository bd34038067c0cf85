package app.yubble.core.pickout;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Size;
import app.yubble.core.touchup.PickOut;
import app.yubble.core.touchup.Stroke;
import app.yubble.core.touchup.Touchup;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;

class PickOutTest {
    /** The cost of a parting, summed from the links and leans that were given. */
    private static double cost(boolean[] inner, float[] leans, float[][] links, int width) {
        double sum = 0;
        for (int i = 0; i < inner.length; i++) {
            sum += inner[i] ? Math.max(0, -leans[i]) : Math.max(0, leans[i]);
            for (int d = 4; d < 8; d++) {
                int to = i + GridCut.DY[d] * width + GridCut.DX[d];
                sum += links[d][i] > 0 && inner[i] != inner[to] ? links[d][i] : 0;
            }
        }
        return sum;
    }

    @Test
    void theCutIsTheCheapestOfAllPartings() {
        int width = 4;
        int height = 3;
        int cells = width * height;
        Random random = new Random(7);
        for (int run = 0; run < 60; run++) {
            GridCut cut = new GridCut(width, height);
            float[] leans = new float[cells];
            float[][] links = new float[8][cells];
            for (int i = 0; i < cells; i++) {
                leans[i] = random.nextInt(21) - 10;
                cut.lean(i, leans[i]);
                for (int d = 4; d < 8; d++) {
                    int x = i % width + GridCut.DX[d];
                    int y = i / width + GridCut.DY[d];
                    if (x >= 0 && x < width && y < height) {
                        links[d][i] = random.nextInt(8);
                        cut.link(i, d, links[d][i]);
                    }
                }
            }
            double least = Double.MAX_VALUE;
            for (int bits = 0; bits < 1 << cells; bits++) {
                boolean[] inner = new boolean[cells];
                for (int i = 0; i < cells; i++) {
                    inner[i] = (bits >> i & 1) == 1;
                }
                least = Math.min(least, cost(inner, leans, links, width));
            }
            assertThat(cost(cut.cut(), leans, links, width)).isEqualTo(least);
        }
    }

    /** A red disc on grey grain, with a grey hole in it. */
    private static Picture ring(Size size) {
        Picture out = Picture.blank(size);
        Random random = new Random(3);
        for (int i = 0; i < size.pixels(); i++) {
            double far = Math.hypot(i % size.width() - 60, i / size.width() - 60);
            boolean red = far < 40 && far > 12;
            float grain = random.nextFloat() * 0.04f;
            out.red().samples()[i] = (red ? 0.6f : 0.25f) + grain;
            out.green().samples()[i] = (red ? 0.1f : 0.25f) + grain;
            out.blue().samples()[i] = (red ? 0.1f : 0.25f) + grain;
        }
        return out;
    }

    @Test
    void anObjectOfAnotherColourIsFoundWithTheHoleInIt() {
        Size size = new Size(120, 120);
        byte[] hints = new byte[120 * 120];
        for (int i = 0; i < hints.length; i++) {
            int x = i % 120;
            int y = i / 120;
            hints[i] = x < 10 || y < 10 || x >= 110 || y >= 110
                    ? ObjectCut.OUTSIDE
                    : Math.abs(x - 60) < 3 && Math.abs(y - 30) < 5 ? ObjectCut.KEEP : ObjectCut.OPEN;
        }
        Plane found = ObjectCut.of(ring(size), Plane.filled(size, 0.5f), hints);
        int wrong = 0;
        for (int i = 0; i < hints.length; i++) {
            double far = Math.hypot(i % 120 - 60, i / 120 - 60);
            boolean red = far < 40 && far > 12;
            wrong += red != found.samples()[i] > 0.5f ? 1 : 0;
        }
        assertThat(wrong).isLessThan(30);
    }

    @Test
    void depthTellsApartWhatLooksTheSame() {
        Size size = new Size(120, 80);
        Picture grey = Picture.blank(size);
        grey.planes().forEach(plane -> java.util.Arrays.fill(plane.samples(), 0.3f));
        Plane nearness = new Plane(size);
        byte[] hints = new byte[120 * 80];
        for (int i = 0; i < hints.length; i++) {
            int x = i % 120;
            int y = i / 120;
            nearness.samples()[i] = x > 40 && x < 80 ? 0.6f : 0.2f;
            hints[i] = x < 8 || x >= 112
                    ? ObjectCut.OUTSIDE
                    : x == 60 && y > 30 && y < 50 ? ObjectCut.KEEP : ObjectCut.OPEN;
        }
        Plane found = ObjectCut.of(grey, nearness, hints);
        assertThat(found.at(45, 40)).isEqualTo(1);
        assertThat(found.at(75, 5)).isEqualTo(1);
        assertThat(found.at(35, 40)).isZero();
        assertThat(found.at(85, 70)).isZero();
    }

    /** A red board, a green post in front of it, and another red board beside it. */
    private static Plane board(float post) {
        Size size = new Size(200, 100);
        Picture picture = Picture.blank(size);
        Plane nearness = new Plane(size);
        byte[] hints = new byte[200 * 100];
        for (int i = 0; i < hints.length; i++) {
            int x = i % 200;
            int y = i / 200;
            boolean red = y > 20 && y < 80 && (x > 20 && x < 100 || x > 140 && x < 170);
            boolean green = x > 50 && x < 66;
            picture.red().samples()[i] = green ? 0.1f : red ? 0.6f : 0.3f;
            picture.green().samples()[i] = green ? 0.5f : red ? 0.1f : 0.3f;
            picture.blue().samples()[i] = green || red ? 0.1f : 0.3f;
            nearness.samples()[i] = green ? post : red ? 0.6f : 0.2f;
            boolean around = x < 8 || x >= 192 || y < 8 || y >= 92;
            boolean mark = y == 50 && x > 75 && x < 95;
            hints[i] = around ? ObjectCut.OUTSIDE : mark ? ObjectCut.KEEP : ObjectCut.OPEN;
        }
        return ObjectCut.of(picture, nearness, hints);
    }

    @Test
    void whatOnlyLooksLikeTheObjectBesideItIsNotPickedOut() {
        Plane found = board(0.9f);
        assertThat(found.at(85, 50)).isEqualTo(1);
        assertThat(found.at(155, 50)).isZero();
        assertThat(found.at(58, 50)).isZero();
    }

    @Test
    void anObjectBehindAPostIsPickedOutOnBothSidesOfIt() {
        assertThat(board(0.9f).at(35, 50)).isEqualTo(1);
        assertThat(board(0.2f).at(35, 50)).isZero();
    }

    @Test
    void aBoxOutsideThePictureAndTwoStartsAtOnceAreRefused() {
        assertThatThrownBy(() -> new PickOut(0.5, 0, 0.6, 1, List.of()))
                .hasMessageContaining("must lie in the picture");
        PickOut pickOut = new PickOut(0, 0, 1, 1, List.of());
        assertThatThrownBy(() -> new Touchup.Start(pickOut, "0".repeat(64)))
                .hasMessageContaining("not with more than one");
        assertThatThrownBy(() -> new Touchup.Start(null, "../x")).hasMessageContaining("64");
    }

    @Test
    void keysTellPickOutsApart() {
        PickOut plain = new PickOut(0, 0, 1, 1, List.of());
        Stroke mark = new Stroke(Stroke.Brush.of(0.01), 0.5f, 0.5f, 1);
        assertThat(new PickOut(0, 0, 1, 1, List.of(mark)).key()).isNotEqualTo(plain.key());
        assertThat(new PickOut(0, 0, 1, 1, List.of()).key()).isEqualTo(plain.key());
    }
}
