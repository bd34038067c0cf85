package app.yubble.core.ladder;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import app.yubble.core.depth.Kin;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Size;
import java.util.Collections;
import java.util.List;
import org.junit.jupiter.api.Test;

class LadderTest {
    private static final Size SIZE = new Size(240, 160);
    private static final int SCALE = 5;

    private record Flags(Picture picture, Plane nearness) {
        Footing footing() {
            return new Footing(nearness, picture, null);
        }

        Plane moved(Ladder ladder, Flags by) {
            return ladder.move(nearness, picture, by.footing());
        }
    }

    /** Red on the left third, green in the middle, blue on the right, each at a nearness of its own. */
    private static Flags flags(Size size, double red, double green, double blue) {
        Plane[] planes = {new Plane(size), new Plane(size), new Plane(size)};
        Plane nearness = new Plane(size);
        double[] all = {red, green, blue};
        for (int y = 0; y < size.height(); y++) {
            for (int x = 0; x < size.width(); x++) {
                int third = 3 * x / size.width();
                planes[third].samples()[y * size.width() + x] = 0.6f;
                nearness.samples()[y * size.width() + x] = (float) all[third];
            }
        }
        return new Flags(new Picture(planes[0], planes[1], planes[2]), nearness);
    }

    private static Ladder ladder(Flags moment, Rung... rungs) {
        return new Ladder(List.of(rungs), Collections.nCopies(rungs.length, moment.footing()));
    }

    private static float at(Plane plane, double x, double y) {
        return plane.samples()[(int) (y * plane.height()) * plane.width() + (int) (x * plane.width())];
    }

    @Test
    void whatBelongsToARungMovesAlongAndEdgesStay() {
        Flags small = flags(SIZE, 0.3, 0.6, 0.1);
        Flags large = flags(new Size(SIZE.width() * SCALE, SIZE.height() * SCALE), 0.3, 0.6, 0.1);
        Ladder ladder = ladder(small, Rung.at(0.1, 0.2), Rung.at(0.5, 0.2), Rung.at(0.9, 0.2));
        Plane moved = large.moved(ladder, small);
        double between = at(moved, 0.1, 0.2) - at(moved, 0.5, 0.2);
        assertThat(between).isCloseTo(0.08, within(0.01));
        // Around the rungs all of the red flag is nearer than all of the green one, to the pixel.
        for (int y = 0; y < moved.height() / 3; y++) {
            int edge = y * moved.width() + moved.width() / 3;
            assertThat(moved.samples()[edge - 1] - moved.samples()[edge]).isBetween(0.015f, 0.13f);
        }
        assertThat(at(moved, 0.9, 0.9)).isCloseTo(0.1f, within(0.06f));
    }

    @Test
    void anOrderThatIsThereChangesNothing() {
        Flags small = flags(SIZE, 0.9, 0.6, 0.1);
        Ladder ladder = ladder(small, Rung.at(0.1, 0.2), Rung.at(0.5, 0.2), Rung.at(0.9, 0.2));
        assertThat(ladder.isIdle()).isTrue();
        assertThat(small.moved(ladder, small)).isSameAs(small.nearness());
    }

    @Test
    void whatIsOfOneKinMovesTogetherThoughItLooksLikeAllElse() {
        Plane flat = Plane.filled(SIZE, 0.5f);
        Picture grey = new Picture(flat, flat, flat);
        List<Rung> rungs = List.of(Rung.at(0.25, 0.2), Rung.at(0.75, 0.2));
        Footing known = new Footing(flat, grey, halves(24));
        Plane moved = new Ladder(rungs, List.of(known, known)).move(flat, grey, known);
        assertThat(at(moved, 0.46, 0.9) - at(moved, 0.54, 0.9)).isGreaterThan(0.03f);
        Footing unknown = new Footing(flat, grey, null);
        Plane plain = new Ladder(rungs, List.of(unknown, unknown)).move(flat, grey, unknown);
        assertThat(at(plain, 0.46, 0.9) - at(plain, 0.54, 0.9)).isLessThan(0.01f);
    }

    /** The left half is of one kin, the right half of another. */
    private static Kin halves(int side) {
        Plane tiles = Plane.filled(new Size(side, Kin.PARTS * side), 0.5f);
        for (int i = 0; i < side * side; i++) {
            tiles.samples()[i] = i % side < side / 2 ? 0.2f : 0.8f;
        }
        return new Kin(tiles);
    }

    @Test
    void betweenTheRungsOfOneSurfaceItMovesBySomethingInBetween() {
        Size size = SIZE;
        Plane flat = Plane.filled(size, 0.5f);
        Picture grey = new Picture(Plane.filled(size, 0.3f), Plane.filled(size, 0.3f), Plane.filled(size, 0.3f));
        Flags wall = new Flags(grey, flat);
        Plane moved = ladder(wall, Rung.at(0.05, 0.5), Rung.at(0.5, 0.5), Rung.at(0.95, 0.5))
                .move(flat, grey, wall.footing());
        for (int x = 13; x < 228; x++) {
            int i = 80 * 240 + x;
            assertThat(moved.samples()[i - 1]).as("at %d", x).isGreaterThan(moved.samples()[i]);
        }
    }

    @Test
    void twoRungsOnOnePlaceAreSolvedToo() {
        Flags small = flags(SIZE, 0.3, 0.6, 0.1);
        Plane moved = small.moved(ladder(small, Rung.at(0.1, 0.2), Rung.at(0.1, 0.2)), small);
        assertThat(moved.range().low()).isNotNegative();
        assertThat(moved.range().high()).isLessThanOrEqualTo(1);
    }

    @Test
    void aLadderOfOneMomentIsCarriedToAnother() {
        Flags then = flags(SIZE, 0.3, 0.6, 0.1);
        Ladder ladder = ladder(then, Rung.at(0.2, 0.2), Rung.at(0.45, 0.2));
        // All has moved to the right by a tenth, as when the camera pans.
        Size wide = new Size(SIZE.width() * 11 / 10, SIZE.height());
        Flags panned = flags(wide, 0.3, 0.6, 0.1);
        Plane moved = panned.moved(ladder, panned);
        assertThat(at(moved, 0.2, 0.5)).isGreaterThan(at(moved, 0.45, 0.5));
    }
}
