package app.yubble.vision;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import app.yubble.core.depth.DepthEstimate;
import app.yubble.core.depth.Kin;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Progress;
import app.yubble.core.raster.Size;
import app.yubble.core.subject.Quality;
import app.yubble.core.subject.Subject;
import java.io.IOException;
import java.io.InputStream;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CancellationException;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.condition.EnabledIf;

/** The networks themselves. They are there when set-up could fetch them; without them there is nothing to test. */
@EnabledIf("networksAreThere")
class LearnedEstimatorTest {
    private static final ModelFolder MODELS = new ModelFolder(Path.of("../var/models"));
    private static SubjectNetwork subjects;
    private static LearnedEstimator estimator;

    static boolean networksAreThere() {
        return MODELS.hasSubjectNetwork();
    }

    @BeforeAll
    static void load() {
        subjects = new SubjectNetwork(MODELS);
        estimator = new LearnedEstimator(subjects);
    }

    /** A light ball on a floor under a sky, drawn here so that the picture never changes. */
    private static Picture ball() {
        Picture picture = Picture.blank(new Size(512, 512));
        for (int y = 0; y < 512; y++) {
            for (int x = 0; x < 512; x++) {
                int i = y * 512 + x;
                double away = Math.hypot(x - 256, y - 300) / 120;
                boolean tile = (x * 8 / (y - 150 + 400) + y / 24) % 2 == 0;
                double[] colour = y < 220
                        ? new double[] {0.3, 0.45, 0.7}
                        : tile ? new double[] {0.2, 0.17, 0.12} : new double[] {0.1, 0.1, 0.08};
                if (away < 1) {
                    double light =
                            0.25 + 0.7 * Math.max(0, 0.6 * Math.sqrt(1 - away * away) - 0.5 * (y - 300) / 120 * 0.8);
                    colour = new double[] {light, 0.25 * light, 0.18 * light};
                }
                for (int c = 0; c < 3; c++) {
                    picture.planes().get(c).samples()[i] = (float) colour[c];
                }
            }
        }
        return picture;
    }

    private static float[] recorded() throws IOException {
        try (InputStream in = LearnedEstimatorTest.class.getResourceAsStream("recorded.bin")) {
            ByteBuffer bytes = ByteBuffer.wrap(in.readAllBytes()).order(ByteOrder.LITTLE_ENDIAN);
            float[] values = new float[bytes.remaining() / Float.BYTES];
            bytes.asFloatBuffer().get(values);
            return values;
        }
    }

    static List<Float> sampled(SubjectNetwork.Features features) {
        List<Float> values = new ArrayList<>();
        for (int i = 0; i < 64; i++) {
            values.add(features.matte().samples()[i * 4096 + 2048 + 37 * (i % 7)]);
        }
        for (Network.Tensor tensor : features.tensors()) {
            int step = tensor.samples().rewind().remaining() / 64;
            for (int i = 0; i < 64; i++) {
                values.add(tensor.samples().get(i * step + step / 2));
            }
        }
        return values;
    }

    /** Recorded from the same weights edited by another program (onnx for Python) and run on the same picture. */
    @Test
    void theDerivedNetworkAnswersAsTheRecordedOne() throws IOException {
        List<Float> found = sampled(subjects.features(ball(), Progress.NONE));
        float[] wanted = recorded();
        assertThat(found).hasSize(wanted.length);
        for (int i = 0; i < wanted.length; i++) {
            assertThat(found.get(i))
                    .as("value %d", i)
                    .isCloseTo(wanted[i], within(2e-3f + 2e-3f * Math.abs(wanted[i])));
        }
    }

    /** A page with grey bars for words. */
    private static Picture page() {
        Picture picture = Picture.blank(new Size(512, 512));
        for (int y = 0; y < 512; y++) {
            for (int x = 0; x < 512; x++) {
                boolean word = y % 24 > 14 && x > 40 && x < 470 && (x + y / 24 * 37) % 61 > 9;
                for (Plane plane : picture.planes()) {
                    plane.samples()[y * 512 + x] = word ? 0.05f : 0.85f;
                }
            }
        }
        return picture;
    }

    @Test
    void aPageIsToldLessSureThanAScene() {
        Plane scene = estimator.estimate(ball(), Quality.DRAFT, Progress.NONE).sure();
        DepthEstimate flat = estimator.estimate(page(), Quality.DRAFT, Progress.NONE);
        assertThat(mean(flat.sure())).isBetween(0.0, 0.4);
        assertThat(mean(scene)).isBetween(mean(flat.sure()) + 0.1, 1.0);
        assertThat(estimator.improve(page(), flat, Progress.NONE).sure()).isSameAs(flat.sure());
    }

    @Test
    void placesOfOneThingAreOfOneKin() {
        DepthEstimate found = estimator.estimate(ball(), Quality.DRAFT, Progress.NONE);
        double within = apart(found.kin(), 220, 270, 290, 340);
        assertThat(within).isPositive();
        assertThat(apart(found.kin(), 256, 300, 60, 60)).isGreaterThan(1.5 * within);
        assertThat(apart(found.kin(), 256, 300, 60, 480)).isGreaterThan(1.5 * within);
        assertThat(estimator.improve(ball(), found, Progress.NONE).kin()).isSameAs(found.kin());
    }

    /** How unlike two places of the picture of the ball are. */
    private static double apart(Kin kin, int x1, int y1, int x2, int y2) {
        double sum = 0;
        for (int part = 0; part < Kin.PARTS; part++) {
            Plane plane = kin.part(part, new Size(512, 512));
            sum += Math.pow(plane.at(x1, y1) - plane.at(x2, y2), 2);
        }
        return Math.sqrt(sum);
    }

    private static double mean(Plane plane) {
        double sum = 0;
        for (float sample : plane.samples()) {
            sum += sample;
        }
        return sum / plane.samples().length;
    }

    @Test
    void theBallIsTheSubjectAndNearerThanTheSky() {
        for (Quality quality : Quality.values()) {
            DepthEstimate estimate = estimator.estimate(ball(), quality, Progress.NONE);
            Subject subject = estimate.subject();
            assertThat(subject.clear()).isTrue();
            Plane matte = subject.matte();
            assertThat(matte.nearestTo(matte.width() * 0.5, matte.height() * 0.58))
                    .isGreaterThan(0.9f);
            assertThat(matte.nearestTo(matte.width() * 0.1, matte.height() * 0.1))
                    .isLessThan(0.1f);
            Plane nearness = estimate.nearness();
            float onBall = nearness.nearestTo(nearness.width() * 0.5, nearness.height() * 0.58);
            float sky = nearness.nearestTo(nearness.width() * 0.5, nearness.height() * 0.1);
            assertThat(onBall).isGreaterThan(sky + 0.3f);
        }
    }

    @Test
    void progressComesAtOnceAndCancellingWorksWithinASecond() {
        long[] cancelled = new long[1];
        List<Double> told = new ArrayList<>();
        Progress progress = done -> {
            told.add(done);
            if (done > 0.3) {
                cancelled[0] = System.nanoTime();
                throw new CancellationException("enough");
            }
        };
        estimator.estimate(ball(), Quality.DRAFT, Progress.NONE);
        long start = System.nanoTime();
        Progress first = done -> {
            if (told.isEmpty()) {
                assertThat((System.nanoTime() - start) / 1e9).isLessThan(1);
            }
            progress.at(done);
        };
        assertThatThrownBy(() -> estimator.estimate(ball(), Quality.BEST, first))
                .isInstanceOf(CancellationException.class);
        assertThat((System.nanoTime() - cancelled[0]) / 1e9).isLessThan(1);
        assertThat(told.size()).isGreaterThan(2);
        // And the next estimate is not spoilt by the cancelled one.
        assertThat(estimator
                        .estimate(ball(), Quality.DRAFT, Progress.NONE)
                        .subject()
                        .clear())
                .isTrue();
    }
}
