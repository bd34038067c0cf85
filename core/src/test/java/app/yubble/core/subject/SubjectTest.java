package app.yubble.core.subject;

import static org.assertj.core.api.Assertions.assertThat;

import app.yubble.core.Pictures;
import app.yubble.core.focus.FocusFinder;
import app.yubble.core.focus.SharpBand;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Region;
import app.yubble.core.raster.Resample;
import app.yubble.core.raster.Size;
import java.util.List;
import org.junit.jupiter.api.Test;

class SubjectTest {
    @Test
    void aDecidedMatteIsClearAndAnUndecidedOneIsNot() {
        Plane decided = Pictures.plane(100, 80, (x, y) -> x > 30 && x < 60 && y > 20 ? 1 : 0);
        Plane undecided = Pictures.plane(100, 80, (x, y) -> x > 30 && x < 60 && y > 20 ? 0.4 : 0.05);
        assertThat(Subject.of(decided).clear()).isTrue();
        assertThat(Subject.of(undecided).clear()).isFalse();
    }

    @Test
    void nothingAndEverythingAreNoSubject() {
        assertThat(Subject.of(new Plane(50, 50)).clear()).isFalse();
        assertThat(Subject.of(Plane.filled(new Size(50, 50), 1)).clear()).isFalse();
    }

    @Test
    void separateThingsAreCountedLargestFirstWithoutSpecks() {
        Plane matte = Pictures.plane(
                200, 100, (x, y) -> x < 50 && y < 50 || x > 120 && x < 140 && y < 20 || x == 180 && y == 90 ? 1 : 0);
        Instances things = Instances.of(matte);
        assertThat(things.count()).isEqualTo(2);
        assertThat(things.labels()[10 * 200 + 10]).isEqualTo(1);
        assertThat(things.labels()[10 * 200 + 130]).isEqualTo(2);
        assertThat(things.labels()[90 * 200 + 180]).isZero();
    }

    /** Dark hairs two pixels wide that stand out of a dark shape over a light ground. */
    private static double hairy(double x, double y) {
        boolean body = y > 500;
        boolean hair = y > 380 && Math.abs(((x % 40) + 40) % 40 - 20) < 1.5;
        return body || hair ? 1 : 0;
    }

    @Test
    void theMatteIsRefinedToHairs() {
        Picture picture = Pictures.grey(1200, 800, (x, y) -> 0.7 - 0.65 * hairy(x, y));
        Plane coarse = Resample.shrink(Pictures.plane(1200, 800, SubjectTest::hairy), new Size(150, 100));
        Plane fine = MatteRefiner.refine(coarse, picture);
        double onHair = 0;
        double between = 0;
        for (int k = 2; k < 28; k++) {
            onHair += fine.at(40 * k + 20, 450);
            between += fine.at(40 * k, 450);
        }
        assertThat(onHair / 26).isGreaterThan(0.5);
        assertThat(between / 26).isLessThan(0.06);
        assertThat(fine.at(600, 700)).isEqualTo(1);
        assertThat(fine.at(600, 100)).isZero();
    }

    @Test
    void theEdgeOfTheMatteGoesToThePicturesEdge() {
        Picture picture = Pictures.grey(2000, 1000, (x, y) -> x < 1003 ? 0.6 : 0.1);
        Plane coarse = Pictures.plane(250, 125, (x, y) -> x < 124 ? 1 : x == 124 ? 0.6 : x == 125 ? 0.3 : 0);
        Plane fine = MatteRefiner.refine(coarse, picture);
        assertThat(fine.at(1000, 500)).isGreaterThan(0.8f);
        assertThat(fine.at(1005, 500)).isLessThan(0.2f);
    }

    @Test
    void theAutomaticFocusCoversTheSubjectOfTheMatte() {
        Plane nearness = Pictures.plane(300, 200, (x, y) -> x > 100 && x < 160 ? 0.35 + 0.001 * y : 0.9);
        Plane matte = Pictures.plane(150, 100, (x, y) -> x > 52 && x < 78 ? 1 : 0);
        SharpBand band = FocusFinder.subject(Pictures.noise(300, 200, 2), nearness, matte);
        assertThat(band.outside(0.38)).isZero();
        assertThat(band.outside(0.52)).isZero();
        assertThat(band.outside(0.9)).isLessThan(-0.1);
    }

    @Test
    void aPartOfAMatteIsRefinedAsTheWholeIs() {
        Picture picture = Pictures.grey(1200, 800, (x, y) -> 0.7 - 0.65 * hairy(x - 100, y - 50));
        Region box = new Region(100, 50, 1000, 700);
        Plane coarse = Resample.shrink(Pictures.plane(1000, 700, SubjectTest::hairy), new Size(125, 88));
        Plane whole = MatteRefiner.refine(coarse, picture, box, box);
        for (Region part : List.of(new Region(400, 400, 300, 200), new Region(100, 50, 200, 700))) {
            Plane own = MatteRefiner.refine(coarse, picture, box, part);
            Plane same = Resample.crop(
                    whole, new Region(part.x() - box.x(), part.y() - box.y(), part.width(), part.height()));
            double sum = 0;
            for (int i = 0; i < own.samples().length; i++) {
                sum += Math.abs(own.samples()[i] - same.samples()[i]);
            }
            assertThat(sum / own.samples().length).as("%s", part).isLessThan(0.004);
        }
        // Where all is decided the small matte stands.
        Plane empty = MatteRefiner.refine(coarse, picture, box, new Region(300, 60, 50, 50));
        assertThat(Pictures.sum(empty)).isZero();
    }

    @Test
    void aMatteIsRefinedUpToTheFarCornerOfALargePicture() {
        Picture picture = Pictures.grey(3001, 61, (x, y) -> x > 1500 ? 0.8 : 0.2);
        Plane matte = Pictures.plane(300, 6, (x, y) -> x > 150 ? 1 : 0);
        Region corner = new Region(3000, 60, 1, 1);
        Plane part = MatteRefiner.refine(matte, picture, Region.all(picture.size()), corner);
        assertThat(part.samples()).containsExactly(1);
    }
}
