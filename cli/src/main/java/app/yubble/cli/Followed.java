package app.yubble.cli;

import app.yubble.core.depth.DepthEstimate;
import app.yubble.core.depth.DepthTrim;
import app.yubble.core.follow.Anchor;
import app.yubble.core.follow.DepthUnder;
import app.yubble.core.follow.Follow;
import app.yubble.core.follow.Put;
import app.yubble.core.follow.TrackPoint;
import app.yubble.core.follow.Wake;
import app.yubble.core.follow.Way;
import app.yubble.core.raster.Size;
import app.yubble.core.recipe.Course;
import app.yubble.core.recipe.Following;
import app.yubble.core.recipe.Recipe;
import app.yubble.core.touchup.Span;
import app.yubble.media.clip.ClipSheet;
import app.yubble.media.clip.DepthReel;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;

/**
 * The points that a clip's recipe follows.
 *
 * @param small size of the frames in which they were tracked
 */
record Followed(Map<Follow, List<TrackPoint>> tracks, Size small) {
    /**
     * What {@code --follow} follows.
     *
     * @param text X,Y in pixels of the full frame, and @F after it when that is not the first one
     */
    static Followed of(String text, ClipWork work, double width) {
        String[] parts = text.split("@", 2);
        double[] place = TrackCommand.place(parts[0], "--follow");
        Size full = work.sheet().info().size();
        TrackCommand.requireInside(place, full, "--follow");
        int frame;
        try {
            frame = ClipCommand.frame(
                            parts.length == 2 ? Integer.parseInt(parts[1].strip()) : 1, 1, "--follow", work.sheet())
                    - 1;
        } catch (NumberFormatException none) {
            throw new WrongUseException("--follow: must be X,Y or X,Y@FRAME, found " + text);
        }
        List<TrackPoint> track = TrackCommand.tracked(work, List.of(TrackCommand.anchor(work, frame, place)), false);
        Put put = new Put(work.sheet().micros(frame) / 1e6, place[0] / full.width(), place[1] / full.height());
        Follow follow = new Follow("follow", "", List.of(put), false, true, width, 0, Follow.USUAL_SMOOTH, Span.ALL);
        return new Followed(Map.of(follow, track), work.small().size());
    }

    /** What a recipe follows. */
    static Followed of(List<Follow> follows, ClipWork work) {
        Size full = work.sheet().info().size();
        Map<Follow, List<TrackPoint>> tracks = new LinkedHashMap<>();
        for (Follow each : follows) {
            // Of two in one frame the later one.
            TreeMap<Integer, Anchor> anchors = new TreeMap<>();
            for (Put put : each.puts()) {
                int frame = work.sheet().frameAt(Math.round(put.at() * 1e6));
                double[] place = {put.x() * full.width(), put.y() * full.height()};
                anchors.put(frame, TrackCommand.anchor(work, frame, place));
            }
            tracks.put(each, TrackCommand.tracked(work, List.copyOf(anchors.values()), each.eye()));
        }
        return new Followed(tracks, work.small().size());
    }

    Course course(Recipe recipe, DepthReel reel, ClipSheet sheet) {
        Map<Follow, Wake> wakes = new LinkedHashMap<>();
        Map<Follow, @Nullable Way> ways = new LinkedHashMap<>();
        tracks.forEach((follow, track) -> {
            if (follow.focus()) {
                wakes.put(follow, wake(track, recipe.depth().trim(), reel, sheet));
            }
            ways.put(follow, way(track, sheet));
        });
        return new Following(recipe, wakes::get, ways::get);
    }

    private Wake wake(List<TrackPoint> track, DepthTrim trim, DepthReel reel, ClipSheet sheet) {
        List<Wake.Under> under = new ArrayList<>();
        for (int frame = 0; frame < track.size(); frame++) {
            TrackPoint point = track.get(frame);
            DepthEstimate map = reel.at(frame);
            if (map != null) {
                Way.At at = at(point, frame, sheet);
                double nearness = trim.valueOf(DepthUnder.of(map.nearness(), at.x(), at.y()));
                under.add(Wake.Under.of(at.seconds(), nearness, point));
            }
        }
        return new Wake(under);
    }

    /** Null for a point that is never seen. */
    private @Nullable Way way(List<TrackPoint> track, ClipSheet sheet) {
        List<Way.At> seen = new ArrayList<>();
        for (int frame = 0; frame < track.size(); frame++) {
            if (track.get(frame).visible()) {
                seen.add(at(track.get(frame), frame, sheet));
            }
        }
        return seen.isEmpty() ? null : new Way(seen);
    }

    private Way.At at(TrackPoint point, int frame, ClipSheet sheet) {
        double x = (point.x() + 0.5) / small.width();
        return new Way.At(sheet.micros(frame) / 1e6, x, (point.y() + 0.5) / small.height());
    }
}
