package app.yubble.core.clip;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import app.yubble.core.depth.DepthEstimate;
import app.yubble.core.depth.DepthEstimator;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Progress;
import app.yubble.core.raster.Size;
import app.yubble.core.subject.Quality;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.Iterator;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.OptionalInt;
import java.util.Random;
import java.util.TreeMap;
import java.util.concurrent.CancellationException;
import org.junit.jupiter.api.Test;

/** Depth over time with an estimator whose scale and noise jump from frame to frame, before a scene that stands still. */
class DepthOverTimeTest {
    private static final Size SIZE = new Size(64, 36);
    private static final FlowFinder STILL = (from, to) -> Flow.none(from.size());

    /** Nearness rises from the left to the right. */
    private static float exact(int i) {
        return (i % SIZE.width() + 0.5f) / SIZE.width();
    }

    /** Every estimate has a scale, an offset and noise of its own; the third of each is remembered for nobody. */
    private static final class Jumpy implements DepthEstimator {
        final Random random = new Random(5);
        int estimates;

        @Override
        public String name() {
            return "jumpy";
        }

        @Override
        public DepthEstimate estimate(Picture picture, Quality quality, Progress progress) {
            estimates++;
            double factor = 0.6 + 0.3 * random.nextDouble();
            double offset = 0.1 * random.nextDouble();
            Plane out = new Plane(SIZE);
            for (int i = 0; i < out.samples().length; i++) {
                out.samples()[i] = (float) (offset + factor * exact(i) + 0.03 * (random.nextDouble() - 0.5));
            }
            return DepthEstimate.of(out);
        }
    }

    private static final class Memory implements DepthOverTime.Shelves {
        final Map<String, Map<Integer, Plane>> all = new HashMap<>();

        private PlaneStore shelf(String name) {
            Map<Integer, Plane> own = all.computeIfAbsent(name, fresh -> new HashMap<>());
            return new PlaneStore() {
                @Override
                public void put(int number, Plane plane) {
                    own.put(number, plane.copy());
                }

                @Override
                public Plane get(int number) {
                    return Objects.requireNonNull(own.get(number)).copy();
                }

                @Override
                public boolean has(int number) {
                    return own.containsKey(number);
                }
            };
        }

        @Override
        public PlaneStore maps(String name, Size size) {
            return shelf(name);
        }

        @Override
        public PlaneStore mattes(String name, Size size) {
            return shelf(name);
        }
    }

    private static final FrameSource FRAMES = (from, to, taker) -> {
        for (int i = from; i < to; i++) {
            taker.take(i, Picture.blank(SIZE));
        }
    };

    private static Map<Integer, Plane> run(
            DepthEstimator estimator,
            Quality quality,
            List<Integer> cuts,
            int frames,
            Memory memory,
            Progress progress) {
        Map<Integer, Plane> out = new TreeMap<>();
        List<Integer> order = new ArrayList<>();
        new DepthOverTime(estimator, STILL, quality)
                .run(
                        new DepthOverTime.Shot(SIZE, frames, 24, cuts),
                        FRAMES,
                        memory,
                        new DepthOverTime.Sink() {
                            @Override
                            public void first(int frame, DepthEstimate estimate) {
                                // Only what is settled is looked at here.
                            }

                            @Override
                            public void settled(int frame, DepthEstimate estimate) {
                                out.put(frame, estimate.nearness());
                                order.add(frame);
                            }
                        },
                        progress);
        assertThat(order).as("every frame once, in order").isSorted().hasSize(frames);
        return out;
    }

    private static double meanChange(Map<Integer, Plane> maps) {
        double sum = 0;
        for (int frame = 1; frame < maps.size(); frame++) {
            Plane before = Objects.requireNonNull(maps.get(frame - 1));
            Plane now = Objects.requireNonNull(maps.get(frame));
            for (int i = 0; i < now.samples().length; i++) {
                sum += Math.abs(now.samples()[i] - before.samples()[i]);
            }
        }
        return sum / SIZE.pixels() / (maps.size() - 1);
    }

    @Test
    void aSceneThatStandsStillGetsDepthThatStandsStill() {
        Map<Integer, Plane> maps = run(new Jumpy(), Quality.BEST, List.of(), 40, new Memory(), Progress.NONE);
        // Alone, scale and noise change what is seen by 0.06 on the mean of this slope.
        assertThat(meanChange(maps)).isLessThan(0.004);
        Plane last = Objects.requireNonNull(maps.get(39));
        assertThat(last.at(60, 20) - last.at(3, 20)).as("order and range stay").isGreaterThan(0.6f);
    }

    @Test
    void aDraftEstimatesAFewFramesAndGivesAll() {
        Jumpy estimator = new Jumpy();
        Map<Integer, Plane> maps = run(estimator, Quality.DRAFT, List.of(), 41, new Memory(), Progress.NONE);
        assertThat(estimator.estimates).as("every fifth at 24 a second").isEqualTo(9);
        assertThat(maps).hasSize(41);
    }

    @Test
    void aFrameThatIsLookedAtComesBeforeThoseWhoseTurnItIs() {
        Jumpy estimator = new Jumpy();
        List<Integer> order = new ArrayList<>();
        List<Integer> settled = new ArrayList<>();
        Iterator<Integer> looked = List.of(33, 47).iterator();
        new DepthOverTime(estimator, STILL, Quality.DRAFT)
                .run(
                        new DepthOverTime.Shot(SIZE, 50, 24, List.of(41)),
                        FRAMES,
                        new Memory(),
                        new DepthOverTime.Sink() {
                            @Override
                            public OptionalInt wanted() {
                                return looked.hasNext() ? OptionalInt.of(looked.next()) : OptionalInt.empty();
                            }

                            @Override
                            public void first(int frame, DepthEstimate estimate) {
                                order.add(frame);
                            }

                            @Override
                            public void settled(int frame, DepthEstimate estimate) {
                                settled.add(frame);
                            }
                        },
                        Progress.NONE);
        assertThat(order).as("the key beside it, and one behind a cut").startsWith(35, 0, 47, 5, 10);
        assertThat(order).as("the key is not estimated again").doesNotHaveDuplicates();
        assertThat(settled).isSorted().hasSize(50);
    }

    @Test
    void cutsAreNotMixedOver() {
        DepthEstimator turning = new DepthEstimator() {
            private int frame;

            @Override
            public String name() {
                return "turning";
            }

            @Override
            public DepthEstimate estimate(Picture picture, Quality quality, Progress progress) {
                boolean after = frame++ >= 10;
                Plane out = new Plane(SIZE);
                for (int i = 0; i < out.samples().length; i++) {
                    out.samples()[i] = after ? 1 - exact(i) : exact(i);
                }
                return DepthEstimate.of(out);
            }
        };
        Map<Integer, Plane> maps = run(turning, Quality.BEST, List.of(10), 20, new Memory(), Progress.NONE);
        assertThat(Objects.requireNonNull(maps.get(9)).at(63, 5)).isCloseTo(1, within(0.02f));
        assertThat(Objects.requireNonNull(maps.get(10)).at(63, 5)).isCloseTo(0, within(0.02f));
    }

    @Test
    void whatWasEstimatedBeforeARunBrokeOffIsNotEstimatedAgain() {
        Memory memory = new Memory();
        Jumpy estimator = new Jumpy();
        assertThatThrownBy(() -> run(estimator, Quality.BEST, List.of(), 40, memory, done -> {
                    if (done > 0.4) {
                        throw new CancellationException("the power went");
                    }
                }))
                .isInstanceOf(CancellationException.class);
        int before = estimator.estimates;
        assertThat(before).isBetween(10, 39);
        run(estimator, Quality.BEST, List.of(), 40, memory, Progress.NONE);
        assertThat(estimator.estimates).isEqualTo(40);
    }
}
