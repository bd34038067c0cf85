package app.yubble.server.follow;

import app.yubble.core.keep.KeptMasks;
import app.yubble.core.recipe.Recipe;
import app.yubble.core.touchup.KeptAt;
import app.yubble.server.account.SignedIn;
import app.yubble.server.problem.NotFoundException;
import app.yubble.server.problem.RefusedException;
import app.yubble.server.shoot.Clips;
import app.yubble.server.shoot.Shot;
import app.yubble.server.shoot.Shots;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import java.util.ArrayList;
import java.util.List;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;

/** Subjects that are kept. */
@RestController
class KeepController {
    private final Shots shots;
    private final Tracks tracks;
    private final SubjectMaker maker;
    private final KeptSubjects subjects;

    KeepController(Shots shots, Tracks tracks, SubjectMaker maker, KeptSubjects subjects) {
        this.shots = shots;
        this.tracks = tracks;
        this.maker = maker;
        this.subjects = subjects;
    }

    /**
     * What is to be kept.
     *
     * @param touchup id of one of its touch-ups; others may be left out
     */
    record KeepRequest(@NotNull Recipe recipe, @NotNull String touchup) {}

    /** Frames from {@code from} (inclusive) to {@code to} (exclusive). */
    record Stretch(int from, int to) {}

    /**
     * How far it is carried.
     *
     * @param done share that is made; 1 when it is there
     * @param waits whether depth of the clip is waited for
     * @param fault why it could not be made
     * @param seen where in the clip something of it is seen, once it is made
     */
    record KeepView(double done, boolean waits, @Nullable String fault, List<Stretch> seen) {}

    /** Keeps a subject through a clip. Ask again until {@code done} is 1. */
    @PostMapping("/api/shots/{id}/keep")
    KeepView keep(
            @AuthenticationPrincipal SignedIn who, @PathVariable UUID id, @RequestBody @Valid KeepRequest wanted) {
        Shot shot = shots.owned(id, who.id());
        Recipe recipe = wanted.recipe();
        if (!shot.isClip()) {
            throw new RefusedException("A photo has one moment only: there is nothing to keep a subject through.");
        }
        Clips.requireMarksWithin(recipe, shot);
        List<KeptAt> said = recipe.touchups().stream()
                .filter(each -> each.id().equals(wanted.touchup()))
                .map(each -> each.start().kept())
                .filter(each -> !each.isEmpty())
                .findFirst()
                .orElseThrow(() -> new NotFoundException("kept subject"));
        Tracks.Sought sought = SubjectMaker.sought(said, recipe.depth());
        String hash = tracks.hash(shot, sought);
        if (hash != null) {
            return new KeepView(1, false, null, seen(subjects.masks(hash), shot));
        }
        if (!maker.hasDepth(shot, recipe.depth().source())) {
            return new KeepView(0, true, null, List.of());
        }
        Track track = tracks.wanted(shot, sought);
        return new KeepView(Math.min(track.done(), FollowController.ALMOST), false, track.fault(), List.of());
    }

    private List<Stretch> seen(KeptMasks masks, Shot shot) {
        List<Stretch> out = new ArrayList<>();
        int frames = maker.frames(shot);
        int from = -1;
        for (int frame = 0; frame <= frames; frame++) {
            boolean there = frame < frames && masks.isSeen(frame);
            if (there && from < 0) {
                from = frame;
            } else if (!there && from >= 0) {
                out.add(new Stretch(from, frame));
                from = -1;
            }
        }
        return out;
    }
}
