package app.yubble.server.follow;

import app.yubble.core.follow.Follow;
import app.yubble.core.follow.TrackPoint;
import app.yubble.core.follow.Wake;
import app.yubble.core.recipe.Recipe;
import app.yubble.server.account.SignedIn;
import app.yubble.server.problem.NotFoundException;
import app.yubble.server.problem.RefusedException;
import app.yubble.server.shoot.Clips;
import app.yubble.server.shoot.Materials;
import app.yubble.server.shoot.Shot;
import app.yubble.server.shoot.Shots;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;

/** Points that are followed. */
@RestController
class FollowController {
    /** Digits of shares and nearness behind the point, as powers of ten. */
    private static final double DIGITS = 1e5;

    /** Reading the depth of a clip of five minutes takes longer; then one asks again. */
    private static final Duration AT_ONCE = Duration.ofSeconds(2);
    /** Told while something is still to be done. */
    static final double ALMOST = 0.99;

    private final Shots shots;
    private final Materials materials;
    private final Tracks tracks;
    private final Follows follows;

    FollowController(Shots shots, Materials materials, Tracks tracks, Follows follows) {
        this.shots = shots;
        this.materials = materials;
        this.tracks = tracks;
        this.follows = follows;
    }

    /**
     * What is to be followed.
     *
     * @param recipe what of it the depth under the point depends on; touch-ups may be left out
     * @param follow id of one of its follows
     */
    record FollowRequest(@NotNull Recipe recipe, @NotNull String follow) {}

    /**
     * A track.
     *
     * @param done share that is made; 1 when it is there
     * @param fault why it could not be made
     * @param frames all frames of the clip, once it is made
     */
    record TrackView(double done, @Nullable String fault, List<TrackFrame> frames) {}

    /**
     * The point at a frame.
     *
     * @param x share of the picture's width
     * @param y share of the picture's height
     * @param sure 0 where it is not seen, 1 where that is not sure, 2 where it is
     * @param nearness under it, after the depth trim; none where it is not seen or has no depth yet
     */
    record TrackFrame(
            double x, double y, int sure, @Nullable Double nearness) {}

    /** Follows a point through a clip. Ask again until {@code done} is 1. */
    @PostMapping("/api/shots/{id}/follow")
    TrackView follow(
            @AuthenticationPrincipal SignedIn who, @PathVariable UUID id, @RequestBody @Valid FollowRequest wanted) {
        Shot shot = shots.owned(id, who.id());
        if (!shot.isClip()) {
            throw new RefusedException("A photo has one moment only: there is nothing to follow.");
        }
        Clips.requireMarksWithin(wanted.recipe(), shot);
        Follow follow = wanted.recipe().follows().stream()
                .filter(each -> each.id().equals(wanted.follow()))
                .findFirst()
                .orElseThrow(() -> new NotFoundException("follow"));
        Track track = tracks.wanted(shot, follow);
        Tracks.Known known = tracks.known(shot, follow);
        List<Wake.Under> under = known == null
                ? null
                : follows.all(known, materials.of(shot), wanted.recipe().depth(), AT_ONCE);
        if (known == null || under == null) {
            return new TrackView(Math.min(track.done(), ALMOST), track.fault(), List.of());
        }
        List<TrackFrame> frames = new ArrayList<>();
        for (int i = 0; i < under.size(); i++) {
            TrackPoint point = known.points().get(i);
            boolean told = under.get(i).weight() > 0;
            frames.add(new TrackFrame(
                    rounded(point.x()),
                    rounded(point.y()),
                    point.sure() ? 2 : point.visible() ? 1 : 0,
                    told ? rounded(under.get(i).nearness()) : null));
        }
        return new TrackView(1, null, frames);
    }

    private static double rounded(double value) {
        return Math.round(value * DIGITS) / DIGITS;
    }
}
