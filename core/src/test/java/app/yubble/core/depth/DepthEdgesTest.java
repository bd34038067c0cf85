package app.yubble.core.depth;

import static org.assertj.core.api.Assertions.assertThat;

import app.yubble.core.Pictures;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Resample;
import app.yubble.core.raster.Size;
import app.yubble.core.subject.Subject;
import org.junit.jupiter.api.Test;

class DepthEdgesTest {
    private static final int WIDTH = 1200;
    private static final int HEIGHT = 800;

    private static boolean onDisc(double x, double y) {
        return Math.hypot(x - 600, y - 400) < 210;
    }

    /** A textured disc before a textured ground that comes nearer downwards. */
    private final Picture picture = new Picture(
            Pictures.plane(WIDTH, HEIGHT, (x, y) -> onDisc(x, y) ? 0.5 + 0.1 * Math.sin(x * 0.2) : 0.12),
            Pictures.plane(WIDTH, HEIGHT, (x, y) -> onDisc(x, y) ? 0.2 : 0.25 + 0.05 * Math.sin(y * 0.3)),
            Pictures.plane(WIDTH, HEIGHT, (x, y) -> onDisc(x, y) ? 0.15 : 0.1));

    private static double truth(double x, double y) {
        return onDisc(x, y) ? 0.8 : 0.1 + 0.4 * y / HEIGHT;
    }

    /** As a network answers: 96 pixels wide and blurred. */
    private static Plane soft() {
        Plane exact = Pictures.plane(WIDTH, HEIGHT, DepthEdgesTest::truth);
        return app.yubble.core.raster.BoxMean.of(Resample.shrink(exact, new Size(96, 64)), 1);
    }

    private static Plane matte(double share) {
        return Pictures.plane(300, 200, (x, y) -> onDisc(x * 4 + 2, y * 4 + 2) ? share : 0);
    }

    private static void assertRight(Plane found, double furtherThan) {
        int halfway = 0;
        for (int y = 0; y < HEIGHT; y += 3) {
            for (int x = 0; x < WIDTH; x += 3) {
                double off = Math.abs(Math.hypot(x - 600, y - 400) - 210);
                if (off > furtherThan && x > 20 && x < WIDTH - 20 && y > 20 && y < HEIGHT - 20) {
                    boolean disc = onDisc(x, y);
                    float z = found.at(x, y);
                    assertThat(z).as("nearness at %d, %d", x, y).isBetween(disc ? 0.7f : 0.05f, disc ? 0.85f : 0.62f);
                    halfway += !disc && z > truth(x, y) + 0.12 ? 1 : 0;
                }
            }
        }
        assertThat(halfway).as("pixels of half-way depth around the disc").isLessThan(60);
    }

    @Test
    void whatThePictureHardlyShowsStaysAsNearOnTheWhole() {
        Picture flat = new Picture(
                Plane.filled(picture.size(), 0.2f),
                Plane.filled(picture.size(), 0.2f),
                Plane.filled(picture.size(), 0.2f));
        Plane map = Pictures.plane(192, 128, (x, y) -> Math.abs(x - 96) < 2 ? 0.9 : 0.3);
        Plane found = Resample.shrink(DepthEdges.follow(DepthEstimate.of(map), flat, 1), new Size(6, 4));
        Plane wanted = Resample.shrink(map, found.size());
        assertThat(wanted.at(3, 1)).isGreaterThan(0.33f);
        for (int i = 0; i < wanted.samples().length; i++) {
            float mean = wanted.samples()[i];
            assertThat(found.samples()[i]).as("place %d", i).isBetween(mean - 0.012f, mean + 0.012f);
        }
    }

    @Test
    void aSoftMapGetsThePicturesEdgeWithinTwoPixels() {
        assertRight(DepthEdges.follow(DepthEstimate.of(soft()), picture, 1), 2);
    }

    @Test
    void theMatteSeparatesTheSubjectFromWhatIsBehind() {
        assertRight(DepthEdges.follow(new DepthEstimate(soft(), Subject.of(matte(1))), picture, 1), 2);
    }

    @Test
    void aMatteThatIsUndecidedAllOverTheSubjectMakesNoHalfwayDepth() {
        DepthEstimate estimate = new DepthEstimate(soft(), new Subject(matte(0.62), 0.9));
        Plane found = DepthEdges.follow(estimate, picture, 1);
        assertThat(found.at(600, 400)).isBetween(0.74f, 0.85f);
        assertThat(found.at(450, 400)).isBetween(0.7f, 0.85f);
    }

    @Test
    void aFloorStaysARamp() {
        Plane found = DepthEdges.follow(DepthEstimate.of(soft()), picture, 1);
        // Down the left side the truth rises by 0.0005 a pixel; a step would be many times that.
        for (int y = 40; y < HEIGHT - 40; y++) {
            assertThat(found.at(100, y + 1) - found.at(100, y)).isBetween(-0.004f, 0.012f);
        }
        assertThat(found.at(100, 700) - found.at(100, 100)).isBetween(0.2f, 0.4f);
    }

    @Test
    void twoThingsKeepTheirOwnDepths() {
        Plane two = Pictures.plane(
                300, 200, (x, y) -> Math.abs(y - 100) < 60 && (x > 60 && x < 140 || x > 160 && x < 240) ? 1 : 0);
        Plane exact = Pictures.plane(
                WIDTH,
                HEIGHT,
                (x, y) -> Math.abs(y - 400) < 240 && x > 240 && x < 560
                        ? 0.9
                        : Math.abs(y - 400) < 240 && x > 640 && x < 960 ? 0.5 : 0.1);
        Picture scene = Pictures.grey(WIDTH, HEIGHT, (x, y) -> truthless(x, y));
        Plane map = app.yubble.core.raster.BoxMean.of(Resample.shrink(exact, new Size(96, 64)), 1);
        Plane found = DepthEdges.follow(new DepthEstimate(map, Subject.of(two)), scene, 1);
        assertThat(found.at(552, 400)).isGreaterThan(0.8f);
        assertThat(found.at(648, 400)).isBetween(0.4f, 0.6f);
        assertThat(found.at(600, 400)).isLessThan(0.3f);
    }

    private static double truthless(int x, int y) {
        boolean left = Math.abs(y - 400) < 240 && x > 240 && x < 560;
        boolean right = Math.abs(y - 400) < 240 && x > 640 && x < 960;
        return left ? 0.6 : right ? 0.4 : 0.05;
    }

    @Test
    void withoutSnappingTheMapStaysAsItIs() {
        Plane fine = Pictures.plane(WIDTH, HEIGHT, DepthEdgesTest::truth);
        assertThat(DepthEdges.follow(DepthEstimate.of(fine), picture, 0).samples())
                .isEqualTo(fine.samples());
    }

    @Test
    void moreSnapBringsTheEdgeCloserToThePictures() {
        DepthEstimate estimate = new DepthEstimate(soft(), Subject.of(matte(1)));
        double before = Double.MAX_VALUE;
        for (double snap : new double[] {0, 0.1, 1}) {
            Plane found = DepthEdges.follow(estimate, picture, snap);
            double error = 0;
            for (int y = 180; y < 620; y += 2) {
                for (int x = 380; x < 820; x += 2) {
                    error += Math.abs(found.at(x, y) - truth(x, y));
                }
            }
            assertThat(error).isLessThan(before);
            before = error;
        }
    }

    @Test
    void theOrderOfTheMapIsKept() {
        Plane map = soft();
        Plane found = DepthEdges.follow(DepthEstimate.of(map), picture, 1);
        java.util.Random random = new java.util.Random(8);
        int wrong = 0;
        for (int pair = 0; pair < 400; pair++) {
            int ax = random.nextInt(WIDTH);
            int ay = random.nextInt(HEIGHT);
            int bx = random.nextInt(WIDTH);
            int by = random.nextInt(HEIGHT);
            if (Math.abs(truth(ax, ay) - truth(bx, by)) > 0.08) {
                wrong += truth(ax, ay) > truth(bx, by) != found.at(ax, ay) > found.at(bx, by) ? 1 : 0;
            }
        }
        assertThat(wrong).isLessThanOrEqualTo(4);
    }
}
