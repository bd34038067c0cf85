package app.yubble.bench;

import java.util.ArrayList;
import java.util.List;
import java.util.function.ToDoubleFunction;

/**
 * Points of scenes with exact depth whose way is known exactly: a place of a frame becomes a point of the scene by its depth, moves as the
 * scene's source says, and is seen from each frame's camera; it is hidden where depth there is nearer.
 */
record FollowScene(String name, String clip, int frame, double x, double y, Way way, boolean eye) {
    FollowScene(String name, String clip, int frame, double x, double y, Way way) {
        this(name, clip, frame, x, y, way, false);
    }

    /** Share by which depth may be nearer than the point: depth has 4096 steps, and surfaces are round. */
    private static final double SAME = 0.03;

    /** How a thing moves: metres across, up and away at a share of the clip's time. */
    record Way(ToDoubleFunction<Double> across, ToDoubleFunction<Double> up, ToDoubleFunction<Double> away) {
        static final Way NONE = new Way(t -> 0, t -> 0, t -> 0);

        static Way away(ToDoubleFunction<Double> away) {
            return new Way(t -> 0, t -> 0, away);
        }

        /** A walker's head nods with the steps; {@code speed} in metres a second over four seconds. */
        static Way walking(double acrossSpeed, double awaySpeed, double steps, double phase) {
            return new Way(
                    t -> 4 * t * acrossSpeed,
                    t -> 0.03 * Math.abs(Math.cos((4 * t * steps + phase) * 6.28318)),
                    t -> 4 * t * awaySpeed);
        }
    }

    /** An eye of the head that turns, so far from the middle of its face, in metres; as {@code turning.pov} says. */
    private static Way turning(double beside) {
        double ahead = -0.098;
        ToDoubleFunction<Double> turn = t -> Math.toRadians(-22 + 40 * t);
        return new Way(
                t -> beside * Math.cos(turn.applyAsDouble(t))
                        + ahead * Math.sin(turn.applyAsDouble(t))
                        - 0.22
                        + 0.4 * t,
                t -> 0,
                t -> ahead * Math.cos(turn.applyAsDouble(t))
                        - beside * Math.sin(turn.applyAsDouble(t))
                        + 0.35
                        - 0.6 * t);
    }

    private static final String ARRIVAL = "demo/clips/arrival.json";
    private static final String STROLL = "bench/clips/stroll.json";
    private static final String SITTING = "bench/clips/sitting.json";

    private static final String PASSING = "bench/clips/passing.json";

    private static final String TURNING = "bench/clips/turning.json";

    private static final Way PASSING_TRAIN = new Way(t -> -16 * t, t -> 0, t -> 0);
    private static final Way TRAIN = Way.away(t -> 30 * (1 - t) * (1 - t) * (0.55 + 0.45 * (1 - t)));

    /** In pixels of the clips' frames. */
    static List<FollowScene> all() {
        return List.of(
                new FollowScene("passing, lamp", PASSING, 12, 748, 372, PASSING_TRAIN),
                new FollowScene("passing, panel", PASSING, 12, 1045, 296, PASSING_TRAIN),
                new FollowScene("passing, coach", PASSING, 52, 877, 247, PASSING_TRAIN),
                new FollowScene("passing, house", PASSING, 12, 209, 350, Way.NONE),
                new FollowScene("lamp of the train, left", ARRIVAL, 60, 798, 428, TRAIN),
                new FollowScene("lamp of the train, right", ARRIVAL, 60, 912, 428, TRAIN),
                new FollowScene("buffer of the train", ARRIVAL, 60, 926, 472, TRAIN),
                new FollowScene("signal", ARRIVAL, 12, 766, 210, Way.NONE),
                new FollowScene("who waits, cap", ARRIVAL, 12, 555, 395, Way.NONE),
                new FollowScene("walker, yellow", ARRIVAL, 12, 766, 366, Way.walking(-1.15, 0, 0.8, 0.3)),
                new FollowScene("walker, blue", ARRIVAL, 60, 675, 378, Way.walking(1.5, 0, 0.85, 0)),
                new FollowScene("lamp post, far", ARRIVAL, 12, 615, 246, Way.NONE),
                new FollowScene("lamp post, second", ARRIVAL, 12, 677, 216, Way.NONE),
                new FollowScene("case, handle", ARRIVAL, 12, 707, 673, Way.NONE),
                new FollowScene("stroll, cap", STROLL, 0, 304, 160, Way.away(t -> 1.4 * t)),
                new FollowScene("stroll, green", STROLL, 0, 228, 152, new Way(t -> 1.8 * t, t -> 0, t -> 0)),
                new FollowScene("stroll, violet", STROLL, 0, 419, 152, new Way(t -> -1.6 * t, t -> 0, t -> 0)),
                new FollowScene("stroll, door", STROLL, 0, 574, 134, Way.NONE),
                new FollowScene("stroll, pole", STROLL, 0, 203, 74, Way.NONE),
                new FollowScene("sitting, eye", SITTING, 18, 325, 153, Way.NONE),
                new FollowScene("sitting, other eye", SITTING, 18, 365, 153, Way.NONE),
                new FollowScene("sitting, mouth", SITTING, 18, 342, 202, Way.NONE),
                new FollowScene("sitting, who passes", SITTING, 18, 124, 132, new Way(t -> 2.2 * t, t -> 0, t -> 0)),
                new FollowScene("sitting, window", SITTING, 18, 230, 135, Way.NONE),
                new FollowScene("turning, eye", TURNING, 0, 353, 240, turning(-0.032), true),
                new FollowScene("turning, other eye", TURNING, 0, 387, 240, turning(0.032), true),
                new FollowScene("turning, eye as a point", TURNING, 0, 353, 240, turning(-0.032)),
                new FollowScene("turning, other as a point", TURNING, 0, 387, 240, turning(0.032)));
    }

    /** @param nearness of the point */
    record Exact(double x, double y, double nearness, boolean visible) {}

    /** Where the point is at each frame. */
    List<Exact> exact(ClipScene scene) {
        double[] start = scene.point(frame, x, y);
        int last = scene.frames() - 1;
        List<Exact> out = new ArrayList<>();
        for (int i = 0; i <= last; i++) {
            double now = (double) i / last;
            double then = (double) frame / last;
            double[] seen = scene.project(i, new double[] {
                start[0] + way.across().applyAsDouble(now) - way.across().applyAsDouble(then),
                start[1] + way.up().applyAsDouble(now) - way.up().applyAsDouble(then),
                start[2] + way.away().applyAsDouble(now) - way.away().applyAsDouble(then)
            });
            out.add(new Exact(seen[0], seen[1], seen[2], scene.nearest(i, seen[0], seen[1]) < seen[2] * (1 + SAME)));
        }
        return out;
    }
}
