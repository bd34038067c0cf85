package app.yubble.vision;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import app.yubble.core.follow.Anchor;
import app.yubble.core.follow.EyeFinder;
import app.yubble.core.follow.GreyFrame;
import app.yubble.core.follow.GreySource;
import app.yubble.core.follow.TrackPoint;
import app.yubble.core.follow.Tracker;
import app.yubble.core.raster.Progress;
import app.yubble.core.raster.Size;
import java.util.List;
import java.util.concurrent.CancellationException;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;

/** A board with stripes and blobs goes over a smooth ground; where it is is a formula. */
class TrackerTest {
    private static final Size SIZE = new Size(480, 270);
    private static final int FRAMES = 60;

    /** Where the board's middle is, how large it is, and what hides it. */
    private interface Scene {
        double x(int frame);

        double y(int frame);

        default double scale(int frame) {
            return 1;
        }

        /** A bar from here to 40 pixels farther right hides everything. */
        default double bar(int frame) {
            return 10_000;
        }

        default boolean shown(int frame) {
            return true;
        }

        /** Whether another side of it is seen. */
        default boolean turned(int frame) {
            return false;
        }

        /** How far to the right of it something else looks as it does, or as it did before it turned. */
        default double twin(int frame) {
            return 10_000;
        }
    }

    private static final Scene STRAIGHT = new Scene() {
        @Override
        public double x(int frame) {
            return 80.3 + 5.2 * frame;
        }

        @Override
        public double y(int frame) {
            return 120 + 20 * Math.sin(frame / 8.0);
        }
    };

    private static GreySource source(Scene scene) {
        return new GreySource() {
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
                    taker.take(frame, drawn(scene, frame));
                }
            }
        };
    }

    private static GreyFrame drawn(Scene scene, int frame) {
        byte[] out = new byte[(int) SIZE.pixels()];
        for (int y = 0, i = 0; y < SIZE.height(); y++) {
            for (int x = 0; x < SIZE.width(); x++, i++) {
                double u = (x - scene.x(frame)) / scene.scale(frame);
                double v = (y - scene.y(frame)) / scene.scale(frame);
                double value = 90 + 30 * Math.sin(x / 70.0) * Math.cos(y / 50.0);
                double beside = u - scene.twin(frame);
                if (scene.shown(frame) && Math.abs(u) < 24 && Math.abs(v) < 24) {
                    value = board(u, v);
                } else if (Math.abs(beside) < 24 && Math.abs(v) < 24) {
                    value = board(beside, v);
                }
                if (scene.turned(frame) && Math.abs(u) < 24 && Math.abs(v) < 24) {
                    value = 120 + 70 * Math.sin(v / 2.2 - (v * v + 5 * u) / 70) + 40 * Math.cos(u / 4.1 - u * v / 45);
                }
                if (x >= scene.bar(frame) && x < scene.bar(frame) + 70) {
                    value = 60;
                }
                out[i] = (byte) Math.max(0, Math.min(255, Math.round(value)));
            }
        }
        return new GreyFrame(SIZE, out);
    }

    private static double board(double u, double v) {
        return 128 + 60 * Math.sin(u / 2.7 + (u * u + 9 * v) / 90) + 50 * Math.cos(v / 3.1 + u * v / 60);
    }

    private static List<TrackPoint> track(Scene scene, List<Integer> cuts, Anchor... anchors) {
        return new Tracker(new LucasKanade()).track(source(scene), cuts, List.of(anchors), Progress.NONE);
    }

    private static Anchor on(Scene scene, int frame) {
        return new Anchor(frame, scene.x(frame), scene.y(frame));
    }

    private static double off(TrackPoint point, Scene scene, int frame) {
        return Math.hypot(point.x() - scene.x(frame), point.y() - scene.y(frame));
    }

    @Test
    void whatMovesIsFollowedBothWays() {
        List<TrackPoint> track = track(STRAIGHT, List.of(), on(STRAIGHT, 25));
        for (int frame = 0; frame < FRAMES; frame++) {
            assertThat(track.get(frame).sure()).as("frame %d", frame).isTrue();
            assertThat(off(track.get(frame), STRAIGHT, frame))
                    .as("frame %d", frame)
                    .isLessThan(0.3);
        }
    }

    @Test
    void whatComesNearerIsFollowedThroughTwiceItsSize() {
        Scene nearer = new Scene() {
            @Override
            public double x(int frame) {
                return 200 + frame;
            }

            @Override
            public double y(int frame) {
                return 130;
            }

            @Override
            public double scale(int frame) {
                return 1 + frame / 50.0;
            }
        };
        List<TrackPoint> track = track(nearer, List.of(), on(nearer, 0));
        for (int frame = 0; frame < FRAMES; frame++) {
            assertThat(off(track.get(frame), nearer, frame))
                    .as("frame %d", frame)
                    .isLessThan(1);
        }
    }

    @Test
    void whatWasHiddenIsFoundAgainWithinThreeFrames() {
        Scene hidden = new Scene() {
            @Override
            public double x(int frame) {
                return STRAIGHT.x(frame);
            }

            @Override
            public double y(int frame) {
                return 120 + 6 * Math.sin(frame / 8.0);
            }

            @Override
            public double bar(int frame) {
                return 200;
            }
        };
        List<TrackPoint> track = track(hidden, List.of(), on(hidden, 5));
        int after = -1;
        for (int frame = 5; frame < FRAMES; frame++) {
            boolean covered = hidden.x(frame) >= 200 && hidden.x(frame) < 270;
            TrackPoint point = track.get(frame);
            if (covered) {
                assertThat(point.sure()).as("frame %d", frame).isFalse();
            } else if (hidden.x(frame) >= 270) {
                after++;
                assertThat(point.visible() || after < 3).as("frame %d", frame).isTrue();
            }
            if (point.sure()) {
                assertThat(off(point, hidden, frame)).as("frame %d", frame).isLessThan(2);
            }
        }
        assertThat(after).isGreaterThan(10);
    }

    /** A head that turns while it is hidden from frame 15 to 29, and back at frame 50. */
    private static class Turning implements Scene {
        @Override
        public double x(int frame) {
            return 60 + 4 * frame;
        }

        @Override
        public double y(int frame) {
            return 130;
        }

        @Override
        public boolean shown(int frame) {
            return frame < 15 || frame >= 50;
        }

        @Override
        public boolean turned(int frame) {
            return frame >= 30 && frame < 50;
        }
    }

    private static final Scene TURNING = new Turning();

    private static List<TrackPoint> byFaces(Scene scene, Anchor anchor, List<EyeFinder.Eyes> others) {
        int[] last = {0};
        GreySource plain = source(scene);
        GreySource told = new GreySource() {
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
                plain.each(from, to, (frame, grey) -> {
                    last[0] = frame;
                    taker.take(frame, grey);
                });
            }
        };
        EyeFinder finder = none -> {
            int frame = last[0];
            if (frame >= 15 && frame < 30) {
                return others;
            }
            double x = scene.x(frame);
            EyeFinder.Eyes own = new EyeFinder.Eyes(new EyeFinder.At(x - 20, 130), new EyeFinder.At(x, 130), 60);
            return Stream.concat(Stream.of(own), others.stream()).toList();
        };
        return new Tracker(new LucasKanade(), finder).track(told, List.of(), List.of(anchor), Progress.NONE);
    }

    @Test
    void anEyeWhoseHeadHasTurnedWhileItWasHiddenIsFoundByItsFace() {
        EyeFinder.Eyes far = new EyeFinder.Eyes(new EyeFinder.At(430, 30), new EyeFinder.At(450, 30), 60);
        List<TrackPoint> track = byFaces(TURNING, on(TURNING, 0), List.of(far));
        for (int frame = 16; frame < 30; frame++) {
            assertThat(track.get(frame).visible()).as("frame %d", frame).isFalse();
        }
        for (int frame = 33; frame < FRAMES; frame++) {
            assertThat(track.get(frame).visible()).as("frame %d", frame).isTrue();
            // A face tells where it is only roughly.
            boolean asItWas = frame >= 50;
            assertThat(track.get(frame).sure()).as("frame %d", frame).isEqualTo(asItWas);
            assertThat(off(track.get(frame), TURNING, frame))
                    .as("frame %d", frame)
                    .isLessThan(1);
        }
        // By its appearance alone it is not found.
        List<TrackPoint> alone = track(TURNING, List.of(), on(TURNING, 0));
        assertThat(alone.subList(30, 50)).noneMatch(TrackPoint::sure);
    }

    @Test
    void theOtherEyeIsNotKeptWhenTheFaceSaysWhereItsOwnIs() {
        Scene twin = new Turning() {
            @Override
            public double twin(int frame) {
                return frame >= 30 && frame < 50 ? 57 : 10_000;
            }
        };
        List<TrackPoint> track = byFaces(twin, on(twin, 0), List.of());
        for (int frame = 33; frame < FRAMES; frame++) {
            assertThat(off(track.get(frame), twin, frame)).as("frame %d", frame).isLessThan(1);
        }
        // By appearance alone it is the other one that is found.
        List<TrackPoint> alone = track(twin, List.of(), on(twin, 0));
        assertThat(alone.subList(36, 50)).allMatch(each -> each.visible() && !each.sure());
        assertThat(off(alone.get(40), twin, 40)).isGreaterThan(50);
    }

    @Test
    void whichOfTwoFacesIsMeantIsNotSure() {
        double x = TURNING.x(34);
        EyeFinder.Eyes beside = new EyeFinder.Eyes(new EyeFinder.At(x + 30, 160), new EyeFinder.At(x + 50, 160), 60);
        List<TrackPoint> track = byFaces(TURNING, on(TURNING, 0), List.of(beside));
        assertThat(track.subList(30, 50)).noneMatch(TrackPoint::sure);
    }

    @Test
    void aPointThatLiesOnNoEyeIsNotLookedForAmongFaces() {
        List<TrackPoint> track = byFaces(TURNING, new Anchor(0, TURNING.x(0) + 14, 140), List.of());
        assertThat(track.subList(30, 50)).noneMatch(TrackPoint::sure);
    }

    @Test
    void onWhatLooksTheSameEverywhereItIsUnsureFromTheFirstFrame() {
        List<TrackPoint> track = track(STRAIGHT, List.of(), new Anchor(0, 400, 40));
        assertThat(track).hasSize(FRAMES).noneMatch(TrackPoint::sure);
    }

    @Test
    void aPointThatLeavesTheFrameIsNotSeenThere() {
        Scene leaving = new Scene() {
            @Override
            public double x(int frame) {
                return 300 + 5.0 * frame;
            }

            @Override
            public double y(int frame) {
                return 130;
            }
        };
        List<TrackPoint> track = track(leaving, List.of(), on(leaving, 0));
        assertThat(track.get(20).sure()).isTrue();
        assertThat(track.get(20).x()).isCloseTo(400, within(0.5));
        assertThat(track.subList(38, FRAMES)).noneMatch(TrackPoint::visible);
    }

    @Test
    void beyondACutItIsNotLookedFor() {
        List<TrackPoint> track = track(STRAIGHT, List.of(30), on(STRAIGHT, 10));
        assertThat(track.subList(0, 30)).allMatch(TrackPoint::sure);
        assertThat(track.subList(30, FRAMES)).noneMatch(TrackPoint::visible);
    }

    @Test
    void acrossACutItIsFollowedWhereItIsPutAgain() {
        List<TrackPoint> track = track(STRAIGHT, List.of(30), on(STRAIGHT, 10), on(STRAIGHT, 40));
        assertThat(track).allMatch(TrackPoint::sure);
    }

    @Test
    void whatIsPutByHandIsFixedAndPullsWhatIsBesideIt() {
        Anchor other = new Anchor(30, STRAIGHT.x(30) + 6, STRAIGHT.y(30));
        List<TrackPoint> track = track(STRAIGHT, List.of(), on(STRAIGHT, 0), other);
        assertThat(track.get(30).x()).isEqualTo(other.x());
        assertThat(track.get(45).x() - STRAIGHT.x(45)).isCloseTo(6, within(0.5));
        assertThat(off(track.get(5), STRAIGHT, 5)).isLessThan(0.5);
        // Two ways that say different things are not sure.
        assertThat(track.get(15).sure()).isFalse();
    }

    @Test
    void whoeverStopsItIsObeyed() {
        assertThatThrownBy(() -> new Tracker(new LucasKanade())
                        .track(source(STRAIGHT), List.of(), List.of(on(STRAIGHT, 0)), done -> {
                            throw new CancellationException();
                        }))
                .isInstanceOf(CancellationException.class);
    }

    @Test
    void aPointBehindTheEndIsRefused() {
        assertThatThrownBy(() -> track(STRAIGHT, List.of(), new Anchor(FRAMES, 10, 10)))
                .isInstanceOf(IllegalArgumentException.class);
    }
}
