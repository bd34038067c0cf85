package app.yubble.server.follow;

import app.yubble.core.clip.Moment;
import app.yubble.core.depth.DepthTrim;
import app.yubble.core.follow.DepthUnder;
import app.yubble.core.follow.Follow;
import app.yubble.core.follow.TrackPoint;
import app.yubble.core.follow.Wake;
import app.yubble.core.follow.Way;
import app.yubble.core.ladder.Footing;
import app.yubble.core.raster.Plane;
import app.yubble.core.recipe.Course;
import app.yubble.core.recipe.DepthChoice;
import app.yubble.core.recipe.Following;
import app.yubble.core.recipe.Recipe;
import app.yubble.core.refocus.RefocusLine;
import app.yubble.core.shape.BlurShape;
import app.yubble.server.shoot.Shot;
import app.yubble.server.shoot.ShotMaterial;
import app.yubble.server.shoot.ShotStill;
import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.time.Duration;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.BiFunction;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;

/** The course of recipes that follow points. */
@Service
public class Follows {
    /** Numbers, each of a frame of a track. */
    private static final int MOST_DEPTHS = 200_000;
    /** Microseconds of a second. */
    private static final double MICROS = 1e6;

    private final Tracks tracks;
    private final KeptSubjects subjects;
    private final RefocusLine line;
    private final Cache<Place, Double> depths =
            Caffeine.newBuilder().maximumSize(MOST_DEPTHS).build();

    Follows(Tracks tracks, KeptSubjects subjects, RefocusLine line) {
        this.line = line;
        this.subjects = subjects;
        this.tracks = tracks;
    }

    private record Place(String track, String depth, int frame) {}

    /** What a shot's recipe is at its moments, as far as its points have been tracked. */
    public Course course(Shot shot, ShotMaterial material, Recipe recipe) {
        return course(shot, material, recipe, tracks::known);
    }

    /** The same with all points tracked and all subjects kept: what is missing is made here and now. */
    public Course whole(Shot shot, ShotMaterial material, Recipe recipe) {
        recipe.touchups().stream()
                .filter(each -> each.acts() && !each.start().kept().isEmpty())
                .forEach(each -> subjects.made(shot, each.start().kept(), recipe.depth()));
        return course(shot, material, recipe, tracks::made);
    }

    private Course course(
            Shot shot, ShotMaterial material, Recipe recipe, BiFunction<Shot, Follow, Tracks.@Nullable Known> found) {
        Map<Follow, Tracks.Known> known = new HashMap<>();
        Set<String> carriers = recipe.shapes().stream()
                .filter(BlurShape::acts)
                .map(each -> each.tie().follow())
                .collect(Collectors.toSet());
        for (Follow each : shot.isClip() ? recipe.follows() : List.<Follow>of()) {
            Tracks.Known track = each.focus() || carriers.contains(each.id()) ? found.apply(shot, each) : null;
            if (track != null) {
                known.put(each, track);
            }
        }
        if (known.isEmpty()) {
            return recipe;
        }
        Map<Follow, @Nullable Way> ways = new HashMap<>();
        known.forEach((follow, track) -> {
            if (carriers.contains(follow.id())) {
                List<Moment> moments = material.moments();
                List<TrackPoint> points = track.points()
                        .subList(0, Math.min(moments.size(), track.points().size()));
                ways.put(follow, Way.of(points, i -> moments.get(i).micros() / MICROS));
            }
        });
        return moment -> new Following(
                        recipe,
                        follow -> {
                            Tracks.Known track = known.get(follow);
                            double seconds = moment.micros() / MICROS + follow.lead();
                            return track == null
                                    ? null
                                    : around(track, material, recipe.depth(), seconds, Wake.reach(follow));
                        },
                        ways::get)
                .at(moment);
    }

    /**
     * Depth under all of a track, as far as there is any.
     *
     * @return null when that takes longer than {@code most}; what was found until then is known the next time
     */
    @Nullable
    List<Wake.Under> all(Tracks.Known track, ShotMaterial material, DepthChoice depth, Duration most) {
        long start = System.nanoTime();
        List<Wake.Under> out = new ArrayList<>();
        List<Moment> moments = material.moments();
        for (int i = 0; i < Math.min(moments.size(), track.points().size()); i++) {
            if (System.nanoTime() - start > most.toNanos()) {
                return null;
            }
            Wake.Under under = track.points().get(i).visible() ? under(track, material, depth, moments.get(i)) : null;
            out.add(under == null ? new Wake.Under(moments.get(i).micros() / MICROS, 0, 0) : under);
        }
        return out;
    }

    /** Depth around a time; beyond it to the next frame to either side at which the point is seen. */
    private Wake around(Tracks.Known track, ShotMaterial material, DepthChoice depth, double seconds, double reach) {
        List<Moment> moments = material.moments();
        List<TrackPoint> points = track.points();
        int count = Math.min(moments.size(), points.size());
        int from = 0;
        while (from < count - 1 && moments.get(from + 1).micros() / MICROS < seconds - reach) {
            from++;
        }
        int to = from;
        while (to < count - 1 && moments.get(to).micros() / MICROS < seconds + reach) {
            to++;
        }
        while (from > 0 && !points.get(from).visible()) {
            from--;
        }
        while (to < count - 1 && !points.get(to).visible()) {
            to++;
        }
        List<Wake.Under> out = new ArrayList<>();
        for (int i = from; i <= to; i++) {
            if (points.get(i).visible()) {
                Wake.Under under = under(track, material, depth, moments.get(i));
                if (under != null) {
                    out.add(under);
                }
            }
        }
        return new Wake(out);
    }

    private Wake.@Nullable Under under(Tracks.Known track, ShotMaterial material, DepthChoice depth, Moment moment) {
        String name = material.knownDepth(moment.frame(), depth.source());
        if (name == null) {
            return null;
        }
        TrackPoint point = track.points().get(moment.frame());
        if (!depth.ladder().isEmpty()) {
            Double nearness = underLadder(track, material, depth, name, point, moment);
            return nearness == null ? null : Wake.Under.of(moment.micros() / MICROS, nearness, point);
        }
        Place place = new Place(track.hash(), name, moment.frame());
        Double raw = depths.get(place, none -> {
            Plane map = material.frame(moment.frame()).depth(depth.source()).nearness();
            return DepthUnder.of(map, point.x(), point.y());
        });
        DepthTrim trim = depth.trim();
        return raw == null ? null : Wake.Under.of(moment.micros() / MICROS, trim.valueOf(raw), point);
    }

    /** The same after a ladder, for which the picture is needed; null while the depth of a rung's moment is not there. */
    private @Nullable Double underLadder(
            Tracks.Known track,
            ShotMaterial material,
            DepthChoice depth,
            String name,
            TrackPoint point,
            Moment moment) {
        ShotStill still = material.frame(moment.frame());
        List<@Nullable String> rungs = new ArrayList<>();
        depth.ladder()
                .forEach(rung -> rungs.add(
                        material.knownDepth(still.at(rung.at()).moment().frame(), depth.source())));
        if (rungs.contains(null)) {
            return null;
        }
        return depths.get(
                new Place(track.hash(), name + rungs + depth, moment.frame()),
                none -> DepthUnder.of(
                        line.nearness(still, depth, still.size().fitting(Footing.SIDE)), point.x(), point.y()));
    }
}
