package app.yubble.vision;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import app.yubble.core.keep.Keeper;
import app.yubble.core.keep.Keeping;
import app.yubble.core.keep.KeptMasks;
import app.yubble.core.keep.Pointed;
import app.yubble.core.keep.SceneSource;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Progress;
import app.yubble.core.raster.Size;
import app.yubble.core.touchup.KeptAt;
import app.yubble.core.touchup.PickOut;
import app.yubble.core.touchup.Stroke;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.concurrent.CancellationException;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** A blue, spotted ball goes over a green ground, and a red bar stands before its way; all of it is a formula. */
class KeeperTest {
    private static final Size SIZE = new Size(240, 136);
    private static final int FRAMES = 40;
    private static final double RADIUS = 24;

    /**
     * @param bar where its left side is; far away for none
     * @param flat all of one depth
     */
    private record Ball(double bar, int barWidth, boolean flat) implements SceneSource {
        Ball(double bar, int barWidth) {
            this(bar, barWidth, false);
        }

        static double x(int frame) {
            return 40 + 4 * frame;
        }

        static boolean on(int frame, int x, int y) {
            return Math.hypot(x - x(frame), y - 68) < RADIUS;
        }

        boolean before(int x) {
            return x >= bar && x < bar + barWidth;
        }

        @Override
        public Size size() {
            return SIZE;
        }

        @Override
        public int frames() {
            return FRAMES;
        }

        @Override
        public void each(int from, int to, Taker taker) {
            for (int frame = from; frame < to; frame++) {
                taker.take(frame, scene(frame));
            }
        }

        Scene scene(int frame) {
            Picture picture = Picture.blank(SIZE);
            Plane nearness = new Plane(SIZE);
            for (int y = 0, i = 0; y < SIZE.height(); y++) {
                for (int x = 0; x < SIZE.width(); x++, i++) {
                    double spots = Math.sin((x - (on(frame, x, y) ? x(frame) : 0)) / 2.3) * Math.cos(y / 3.1);
                    boolean bar = before(x);
                    boolean ball = !bar && on(frame, x, y);
                    float light = (float) (0.2 + 0.1 * spots);
                    picture.red().samples()[i] = bar ? 2 * light : 0.05f;
                    picture.green().samples()[i] = bar ? 0.05f : ball ? 0.1f : light;
                    picture.blue().samples()[i] = ball ? 2 * light : 0.05f;
                    nearness.samples()[i] = flat ? 0.5f : bar ? 0.9f : ball ? 0.6f : 0.2f;
                }
            }
            return new Scene(picture, nearness, null);
        }

        Plane exact(int frame) {
            Plane out = new Plane(SIZE);
            for (int y = 0, i = 0; y < SIZE.height(); y++) {
                for (int x = 0; x < SIZE.width(); x++, i++) {
                    out.samples()[i] = !before(x) && on(frame, x, y) ? 1 : 0;
                }
            }
            return out;
        }

        Keeper.Seed seed(int frame) {
            return new Keeper.Seed(frame, exact(frame));
        }
    }

    private static final Ball FREE = new Ball(10_000, 0);

    private static Map<Integer, Plane> kept(Ball ball, List<Integer> cuts, Keeper.Seed... seeds) {
        Map<Integer, Plane> out = new HashMap<>();
        List<Keeper.Seed> all = List.of(seeds);
        for (int i = 0; i < all.size(); i++) {
            new Keeper(new InverseSearchFlow(), false)
                    .keep(ball, cuts, all.subList(0, i), all.get(i), Progress.NONE, out::put);
        }
        return out;
    }

    private static double likeness(Plane a, Plane b) {
        double both = 0;
        double either = 0;
        for (int i = 0; i < a.samples().length; i++) {
            both += Math.min(a.samples()[i], b.samples()[i]);
            either += Math.max(a.samples()[i], b.samples()[i]);
        }
        return either == 0 ? 1 : both / either;
    }

    private static double area(Plane mask) {
        double sum = 0;
        for (float each : mask.samples()) {
            sum += each;
        }
        return sum;
    }

    @Test
    void whatMovesIsKeptBothWays() {
        Map<Integer, Plane> kept = kept(FREE, List.of(), FREE.seed(20));
        assertThat(kept).hasSize(FRAMES);
        kept.forEach((frame, mask) -> assertThat(likeness(mask, FREE.exact(frame)))
                .as("frame %d", frame)
                .isGreaterThan(0.95));
    }

    /** Whether depth tells it apart, or only its shape and its looks do. */
    @ParameterizedTest
    @ValueSource(booleans = {false, true})
    void whatPassesBehindABarIsKeptUpToItAndTakenUpBeyond(boolean flat) {
        Ball ball = new Ball(100, 30, flat);
        kept(ball, List.of(), ball.seed(3)).forEach((frame, mask) -> {
            // While the bar hides nearly all of it.
            if (frame < 18 || frame > 21) {
                assertThat(likeness(mask, ball.exact(frame)))
                        .as("frame %d", frame)
                        .isGreaterThan(0.93);
            }
        });
    }

    @Test
    void whatWasHiddenAltogetherIsTakenUpAgain() {
        Ball ball = new Ball(90, 60);
        Map<Integer, Plane> kept = kept(ball, List.of(), ball.seed(0));
        assertThat(area(ball.exact(20))).isZero();
        assertThat(area(kept.get(20))).isZero();
        assertThat(likeness(kept.get(FRAMES - 1), ball.exact(FRAMES - 1))).isGreaterThan(0.93);
    }

    @Test
    void beyondACutItIsNotLookedFor() {
        assertThat(kept(FREE, List.of(10, 30), FREE.seed(20)).keySet())
                .containsExactlyInAnyOrder(
                        10, 11, 12, 13, 14, 15, 16, 17, 18, 19, 20, 21, 22, 23, 24, 25, 26, 27, 28, 29);
    }

    @Test
    void betweenTwoGivenMasksTheOneHoldsFromWhichLessWasGuessed() {
        Ball ball = new Ball(90, 60);
        // The second is given where hardly anything is seen yet.
        Map<Integer, Plane> kept = kept(ball, List.of(), ball.seed(0), ball.seed(24));
        assertThat(likeness(kept.get(8), ball.exact(8))).isGreaterThan(0.93);
        assertThat(likeness(kept.get(24), ball.exact(24))).isEqualTo(1);
        assertThat(likeness(kept.get(36), ball.exact(36))).isGreaterThan(0.93);
    }

    @Test
    void aClickOnItFindsAllOfIt() {
        double x = (Ball.x(10) + 6.5) / SIZE.width();
        Plane alone = Pointed.at(FREE.scene(10), x, 0.5);
        assertThat(likeness(alone, FREE.exact(10))).isGreaterThan(0.95);
        // A network that has found it, and something else, only roughly.
        Plane matte = new Plane(SIZE);
        for (int y = 0, i = 0; y < SIZE.height(); y++) {
            for (int px = 0; px < SIZE.width(); px++, i++) {
                boolean rough = Math.hypot(px - Ball.x(10) - 2, y - 67) < RADIUS - 1;
                matte.samples()[i] = rough || px > 200 ? 1 : 0;
            }
        }
        SceneSource.Scene scene = FREE.scene(10);
        SceneSource.Scene found = new SceneSource.Scene(scene.picture(), scene.nearness(), matte);
        assertThat(likeness(Pointed.at(found, x, 0.5), FREE.exact(10))).isGreaterThan(0.95);
    }

    private static KeptAt said(int frame, KeptAt.By by, double size, boolean erases, double x) {
        Stroke.Brush brush = Stroke.Brush.of(size).withCling(0).withSoftness(0);
        Stroke mark = new Stroke(erases ? brush.erasing() : brush, (float) (x / SIZE.width()), 0.5f, 1);
        return new KeptAt(frame, by, new PickOut(0, 0, 1, 1, List.of(mark)));
    }

    private static KeptMasks all(List<KeptAt> said) {
        Keeping.Clip clip = new Keeping.Clip(FREE, List.of(), each -> (int) each.at());
        return new Keeping(new InverseSearchFlow()).all(clip, said, none -> null, Progress.NONE);
    }

    @Test
    void whatIsPutRightAtAMomentIsCarriedToBothSidesUpToWhatWasSaidBefore() {
        KeptAt click = said(5, KeptAt.By.CLICK, 0.02, false, Ball.x(5));
        KeptAt again = said(30, KeptAt.By.CARRIED, 0.02, false, Ball.x(30));
        // All of it is taken away in the middle.
        KeptAt gone = said(20, KeptAt.By.CARRIED, 0.28, true, Ball.x(20));
        KeptMasks kept = all(List.of(click, again, gone));
        for (int frame : new int[] {0, 5, 12, 30, 39}) {
            assertThat(likeness(Objects.requireNonNull(kept.at(frame)), FREE.exact(frame)))
                    .as("frame %d", frame)
                    .isGreaterThan(0.93);
        }
        assertThat(kept.isSeen(20)).isFalse();
        assertThat(kept.isSeen(21)).isFalse();
        // As it is stored.
        KeptMasks read = KeptMasks.read(kept.written());
        for (int frame = 0; frame < FRAMES; frame++) {
            assertThat(Objects.requireNonNull(read.at(frame)).samples())
                    .isEqualTo(Objects.requireNonNull(kept.at(frame)).samples());
        }
        byte[] damaged = kept.written();
        assertThatThrownBy(() -> KeptMasks.read(Arrays.copyOf(damaged, damaged.length - 1)))
                .isInstanceOf(IllegalArgumentException.class);
        damaged[0]++;
        assertThatThrownBy(() -> KeptMasks.read(damaged)).isInstanceOf(IllegalArgumentException.class);
    }

    /** Some waves of the same ground, which the camera pans over. */
    private record Pan(double speed) implements SceneSource {
        @Override
        public Size size() {
            return SIZE;
        }

        @Override
        public int frames() {
            return FRAMES;
        }

        @Override
        public void each(int from, int to, Taker taker) {
            for (int frame = from; frame < to; frame++) {
                Picture picture = Picture.blank(SIZE);
                for (int y = 0, i = 0; y < SIZE.height(); y++) {
                    for (int x = 0; x < SIZE.width(); x++, i++) {
                        double across = x - speed * frame;
                        double waves = Math.sin(across / 3.7 + y / 9.1)
                                + Math.sin(across / 5.3 - y / 4.3)
                                + Math.cos(across / 17 + y / 2.9);
                        picture.green().samples()[i] = (float) (0.3 + 0.08 * waves);
                    }
                }
                taker.take(frame, new Scene(picture, new Plane(SIZE), null));
            }
        }
    }

    private static double across(Plane mask) {
        double sum = 0;
        for (int i = 0; i < mask.samples().length; i++) {
            sum += mask.samples()[i] * (i % SIZE.width());
        }
        return sum / area(mask);
    }

    @Test
    void whatIsPaintedGoesAlongWithWhatItLiesOn() {
        Keeping.Clip clip = new Keeping.Clip(new Pan(2.5), List.of(), each -> (int) each.at());
        List<KeptAt> said = List.of(said(20, KeptAt.By.PAINTED, 0.1, false, 120));
        KeptMasks kept = new Keeping(new InverseSearchFlow()).all(clip, said, none -> null, Progress.NONE);
        double whole = area(Objects.requireNonNull(kept.at(20)));
        for (int frame : new int[] {5, 12, 28, 38}) {
            Plane mask = Objects.requireNonNull(kept.at(frame));
            assertThat(across(mask)).as("frame %d", frame).isCloseTo(120 + 2.5 * (frame - 20), within(1.5));
            assertThat(area(mask)).as("frame %d", frame).isCloseTo(whole, within(0.12 * whole));
        }
    }

    @Test
    void whatIsPaintedIsLetGoWhereItIsHidden() {
        // On the ground; the ball comes over it.
        KeptAt painted = said(2, KeptAt.By.PAINTED, 0.1, false, 140);
        KeptAt erased = said(14, KeptAt.By.CARRIED, 0.02, true, 140);
        KeptMasks kept = all(List.of(painted));
        assertThat(across(Objects.requireNonNull(kept.at(12)))).isCloseTo(140, within(1.0));
        assertThat(kept.isSeen(25)).isFalse();
        // A mark is what it covers, and changes nothing else.
        Plane less = Objects.requireNonNull(all(List.of(painted, erased)).at(14));
        assertThat(less.at(140, 68)).isZero();
        assertThat(less.at(133, 68)).isEqualTo(1);
    }

    @Test
    void aBoxAroundItFindsItToo() {
        double left = (Ball.x(10) - 34) / SIZE.width();
        KeptAt box = new KeptAt(10, KeptAt.By.BOX, new PickOut(left, 0.2, 68.0 / SIZE.width(), 0.6, List.of()));
        KeptMasks kept = all(List.of(box));
        assertThat(likeness(Objects.requireNonNull(kept.at(25)), FREE.exact(25)))
                .isGreaterThan(0.93);
    }

    @Test
    void whoeverStopsItIsObeyed() {
        Progress stopped = done -> {
            throw new CancellationException("no longer wanted");
        };
        Keeper keeper = new Keeper(new InverseSearchFlow(), false);
        assertThatThrownBy(() -> keeper.keep(FREE, List.of(), List.of(), FREE.seed(5), stopped, (frame, mask) -> {}))
                .isInstanceOf(CancellationException.class);
    }
}
