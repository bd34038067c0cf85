package app.yubble.bench;

import app.yubble.core.focus.SharpBand;
import app.yubble.core.follow.Anchor;
import app.yubble.core.follow.DepthUnder;
import app.yubble.core.follow.EyeFinder;
import app.yubble.core.follow.Follow;
import app.yubble.core.follow.GreyFrame;
import app.yubble.core.follow.GreySource;
import app.yubble.core.follow.Put;
import app.yubble.core.follow.TrackPoint;
import app.yubble.core.follow.Tracker;
import app.yubble.core.follow.Wake;
import app.yubble.core.raster.Progress;
import app.yubble.core.raster.Size;
import app.yubble.core.recipe.Following;
import app.yubble.core.recipe.Recipe;
import app.yubble.core.touchup.Span;
import app.yubble.media.clip.ClipFile;
import app.yubble.media.clip.GreyClip;
import app.yubble.vision.FaceEyes;
import app.yubble.vision.FaceNetworks;
import app.yubble.vision.LucasKanade;
import app.yubble.vision.ModelFolder;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.function.IntToDoubleFunction;
import tools.jackson.databind.json.JsonMapper;

/** Followed points against their exact way. */
final class FollowCard {
    /** Height of frames in whose pixels errors are told. */
    private static final double USUAL_HEIGHT = 720;
    /** Pixels of such a frame within which a point is right. */
    private static final double RIGHT = 2;

    private static final EyeFinder EYES =
            new FaceEyes(new FaceNetworks(new ModelFolder(Path.of(System.getProperty("yubble.models", "var/models")))));

    private FollowCard() {}

    /**
     * @param right share of the visible frames within two pixels
     * @param worstSure of all frames that are said to be sure, in pixels
     * @param sure share of the visible frames that are said to be sure
     * @param ghosts hidden frames at which it is said to be seen
     * @param longestHidden frames in a row
     * @param foundAfter most frames until it is found after it was hidden
     * @param inBand share of the visible frames at which the point's exact depth is inside the band that follows it
     * @param framesASecond without decoding
     */
    record Line(
            String name,
            int visible,
            double right,
            double worst,
            double worstSure,
            double sure,
            int ghosts,
            int longestHidden,
            int foundAfter,
            double inBand,
            double framesASecond) {}

    static void main(String[] arguments) throws IOException {
        Path temporary = Files.createTempDirectory("yubble-bench-");
        Map<String, ClipScene> scenes = new HashMap<>();
        List<Line> lines = new ArrayList<>();
        System.out.printf(
                "%-28s%8s%7s%7s%8s%6s%7s%7s%7s%8s%7s%n",
                "point", "visible", "<2 px", "worst", "of sure", "sure", "ghosts", "hidden", "found", "in band", "fps");
        for (FollowScene each : FollowScene.all()) {
            if (arguments.length > 0 && !each.name().contains(arguments[0])) {
                continue;
            }
            ClipScene scene = scenes.get(each.clip());
            if (scene == null) {
                scene = ClipScene.read(Path.of(each.clip()), Integer.MAX_VALUE, temporary);
                scenes.put(each.clip(), scene);
            }
            Line line = scored(each, scene, arguments.length > 1);
            lines.add(line);
            System.out.printf(
                    Locale.ROOT,
                    "%-28s%8d%7.3f%7.2f%8.2f%6.2f%7d%7d%7d%8.3f%7.0f%n",
                    line.name(),
                    line.visible(),
                    line.right(),
                    line.worst(),
                    line.worstSure(),
                    line.sure(),
                    line.ghosts(),
                    line.longestHidden(),
                    line.foundAfter(),
                    line.inBand(),
                    line.framesASecond());
        }
        Path target = Files.createDirectories(Path.of("target/bench")).resolve("follow.json");
        Files.writeString(
                target, JsonMapper.shared().writerWithDefaultPrettyPrinter().writeValueAsString(lines));
        System.out.println("also in " + target);
    }

    /** Frames in memory, so that what is timed is following and not decoding. */
    private static GreySource held(GreySource source) {
        List<GreyFrame> all = new ArrayList<>();
        source.each(0, source.frames(), (frame, grey) -> all.add(grey));
        return new GreySource() {
            @Override
            public Size size() {
                return source.size();
            }

            @Override
            public int frames() {
                return source.frames();
            }

            @Override
            public void each(int from, int to, Taker taker) {
                for (int frame = from; frame < to; frame++) {
                    taker.take(frame, all.get(frame));
                }
            }
        };
    }

    private static Line scored(FollowScene each, ClipScene scene, boolean told) {
        ClipFile clip = scene.clip();
        List<FollowScene.Exact> exact = each.exact(scene);
        GreySource grey = held(new GreyClip(clip.file(), clip.sheet()));
        Tracker tracker = new Tracker(new LucasKanade(), each.eye() ? EYES : null);
        long start = System.nanoTime();
        List<TrackPoint> found = tracker.track(
                grey, clip.sheet().cuts(), List.of(new Anchor(each.frame(), each.x(), each.y())), Progress.NONE);
        double seconds = (System.nanoTime() - start) / 1e9;
        double unit = USUAL_HEIGHT / clip.sheet().info().size().height();
        int visible = 0;
        int right = 0;
        int sure = 0;
        int ghosts = 0;
        int hidden = 0;
        int longest = 0;
        int since = 0;
        int foundAfter = 0;
        double worst = 0;
        double worstSure = 0;
        for (int i = 0; i < found.size(); i++) {
            FollowScene.Exact truth = exact.get(i);
            TrackPoint own = found.get(i);
            double off = unit * Math.hypot(own.x() - truth.x(), own.y() - truth.y());
            if (told) {
                System.out.printf(
                        Locale.ROOT,
                        "%4d  %7.1f %7.1f %s  %6.2f off, %s%n",
                        i + 1,
                        truth.x(),
                        truth.y(),
                        truth.visible() ? "seen  " : "hidden",
                        off,
                        own.sure() ? "sure" : own.visible() ? "seen" : "hidden");
            }
            if (own.sure()) {
                worstSure = Math.max(worstSure, off);
            }
            if (truth.visible()) {
                hidden = 0;
                visible++;
                worst = Math.max(worst, off);
                right += off <= RIGHT ? 1 : 0;
                sure += own.sure() ? 1 : 0;
                if (since > 0) {
                    since = own.visible() && off <= RIGHT * 2 ? 0 : since + 1;
                    foundAfter = Math.max(foundAfter, since == 0 ? 0 : since - 1);
                }
            } else {
                ghosts += own.visible() ? 1 : 0;
                hidden++;
                since = 1;
                longest = Math.max(longest, hidden);
            }
        }
        return new Line(
                each.name(),
                visible,
                visible == 0 ? 1 : (double) right / visible,
                worst,
                worstSure,
                visible == 0 ? 1 : (double) sure / visible,
                ghosts,
                longest,
                foundAfter,
                inBand(each, scene, found, exact),
                found.size() / seconds);
    }

    /** With the exact depth of every frame and the usual settings of a follow. */
    private static double inBand(
            FollowScene each, ClipScene scene, List<TrackPoint> found, List<FollowScene.Exact> exact) {
        Size size = scene.clip().sheet().info().size();
        IntToDoubleFunction seconds = frame -> scene.clip().sheet().micros(frame) / 1e6;
        List<Wake.Under> under = new ArrayList<>();
        for (int i = 0; i < found.size(); i++) {
            TrackPoint own = found.get(i);
            double nearness = DepthUnder.of(scene.exact(i), own.x() / size.width(), own.y() / size.height());
            under.add(Wake.Under.of(seconds.applyAsDouble(i), nearness, own));
        }
        Put put = new Put(seconds.applyAsDouble(each.frame()), each.x() / size.width(), each.y() / size.height());
        Follow follow = new Follow(
                "bench", "", List.of(put), each.eye(), true, Follow.USUAL_WIDTH, 0, Follow.USUAL_SMOOTH, Span.ALL);
        Wake wake = new Wake(under);
        Following following = new Following(Recipe.INITIAL.withFollows(List.of(follow)), any -> wake, any -> null);
        int visible = 0;
        int inside = 0;
        for (int i = 0; i < found.size(); i++) {
            if (exact.get(i).visible()) {
                SharpBand band = following.at(scene.clip().sheet().moment(i)).band();
                double nearness = exact.get(i).nearness();
                visible++;
                inside += nearness >= band.far() && nearness <= band.near() ? 1 : 0;
            }
        }
        return visible == 0 ? 1 : (double) inside / visible;
    }
}
