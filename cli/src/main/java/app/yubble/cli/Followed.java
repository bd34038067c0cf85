package app.yubble.cli;

import app.yubble.core.depth.DepthEstimate;
import app.yubble.core.depth.DepthTrim;
import app.yubble.core.follow.DepthUnder;
import app.yubble.core.follow.Follow;
import app.yubble.core.follow.Put;
import app.yubble.core.follow.TrackPoint;
import app.yubble.core.follow.Wake;
import app.yubble.core.follow.Way;
import app.yubble.core.ladder.Footing;
import app.yubble.core.raster.Plane;
import app.yubble.core.recipe.Course;
import app.yubble.core.recipe.DepthChoice;
import app.yubble.core.recipe.Following;
import app.yubble.core.recipe.Recipe;
import app.yubble.core.refocus.FrameLines;
import app.yubble.core.refocus.HeldPhoto;
import app.yubble.core.refocus.Still;
import app.yubble.core.touchup.Span;
import app.yubble.media.clip.ClipSheet;
import app.yubble.media.clip.DepthReel;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/** The points that a clip's recipe follows, in shares of the picture's sides. */
record Followed(Map<Follow, List<TrackPoint>> tracks) {
    /** What {@code --follow} follows. */
    static Followed of(String text, ClipWork work, double width) {
        List<Put> puts = List.of(TrackCommand.put(text, work, "--follow"));
        Follow follow = new Follow("follow", "", puts, false, true, width, 0, Follow.USUAL_SMOOTH, Span.ALL);
        return new Followed(Map.of(follow, TrackCommand.tracked(work, puts, false)));
    }

    /** What a recipe follows. */
    static Followed of(List<Follow> follows, ClipWork work) {
        Map<Follow, List<TrackPoint>> tracks = new LinkedHashMap<>();
        follows.forEach(each -> tracks.put(each, TrackCommand.tracked(work, each.puts(), each.eye())));
        return new Followed(tracks);
    }

    /** @param moments the frames on which a ladder stands */
    Course course(Recipe recipe, DepthReel reel, ClipWork work, Map<Double, Still> moments) {
        Map<Follow, Wake> wakes = new LinkedHashMap<>();
        Map<Follow, @Nullable Way> ways = new LinkedHashMap<>();
        tracks.forEach((follow, track) -> {
            if (follow.focus()) {
                wakes.put(
                        follow,
                        recipe.depth().ladder().isEmpty()
                                ? wake(track, recipe.depth().trim(), reel, work.sheet())
                                : wake(track, recipe.depth(), reel, work, moments));
            }
            ways.put(follow, Way.of(track, frame -> work.sheet().micros(frame) / 1e6));
        });
        return new Following(recipe, wakes::get, ways::get);
    }

    private static Wake wake(List<TrackPoint> track, DepthTrim trim, DepthReel reel, ClipSheet sheet) {
        List<Wake.Under> under = new ArrayList<>();
        for (int frame = 0; frame < track.size(); frame++) {
            TrackPoint point = track.get(frame);
            DepthEstimate map = reel.at(frame);
            if (map != null) {
                double nearness = trim.valueOf(DepthUnder.of(map.nearness(), point.x(), point.y()));
                under.add(Wake.Under.of(sheet.micros(frame) / 1e6, nearness, point));
            }
        }
        return new Wake(under);
    }

    /** After a ladder, for which pictures are needed. */
    private static Wake wake(
            List<TrackPoint> track, DepthChoice depth, DepthReel reel, ClipWork work, Map<Double, Still> moments) {
        List<Wake.Under> under = new ArrayList<>();
        FrameLines lines = new FrameLines(depth);
        work.smallFile().each(0, track.size(), (frame, picture) -> {
            TrackPoint point = track.get(frame);
            HeldPhoto still = ClipWork.still(picture, reel, frame, Map.of(), Kept.NOTHING, moments);
            Plane map = lines.of(still).nearness(still, depth, still.size().fitting(Footing.SIDE));
            double nearness = DepthUnder.of(map, point.x(), point.y());
            under.add(Wake.Under.of(work.sheet().micros(frame) / 1e6, nearness, point));
        });
        return new Wake(under);
    }
}
