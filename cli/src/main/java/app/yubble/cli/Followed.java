package app.yubble.cli;

import app.yubble.core.depth.DepthEstimate;
import app.yubble.core.depth.DepthTrim;
import app.yubble.core.follow.DepthUnder;
import app.yubble.core.follow.Follow;
import app.yubble.core.follow.Put;
import app.yubble.core.follow.TrackPoint;
import app.yubble.core.follow.Wake;
import app.yubble.core.raster.Size;
import app.yubble.core.recipe.Course;
import app.yubble.core.recipe.Following;
import app.yubble.core.recipe.Recipe;
import app.yubble.core.touchup.Span;
import app.yubble.media.clip.ClipSheet;
import app.yubble.media.clip.DepthReel;
import java.util.ArrayList;
import java.util.List;

/**
 * What {@code --follow} follows.
 *
 * @param small size of the frames in which it was tracked
 */
record Followed(Follow follow, List<TrackPoint> track, Size small) {
    /** @param text X,Y in pixels of the full frame, and @F after it when that is not the first one */
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
        List<TrackPoint> track = TrackCommand.tracked(work, List.of(TrackCommand.anchor(work, frame, place)));
        Put put = new Put(work.sheet().micros(frame) / 1e6, place[0] / full.width(), place[1] / full.height());
        Follow follow = new Follow("follow", "", List.of(put), true, width, 0, Follow.USUAL_SMOOTH, Span.ALL);
        return new Followed(follow, track, work.small().size());
    }

    Course course(Recipe recipe, DepthReel reel, ClipSheet sheet) {
        DepthTrim trim = recipe.depth().trim();
        List<Wake.Under> under = new ArrayList<>();
        for (int frame = 0; frame < track.size(); frame++) {
            TrackPoint point = track.get(frame);
            DepthEstimate map = reel.at(frame);
            if (map != null) {
                double x = (point.x() + 0.5) / small.width();
                double y = (point.y() + 0.5) / small.height();
                double nearness = trim.valueOf(DepthUnder.of(map.nearness(), x, y));
                under.add(Wake.Under.of(sheet.micros(frame) / 1e6, nearness, point));
            }
        }
        Wake wake = new Wake(under);
        return new Following(recipe, each -> wake);
    }
}
