package app.yubble.server.follow;

import app.yubble.core.depth.DepthEdges;
import app.yubble.core.keep.Keeping;
import app.yubble.core.keep.KeptMasks;
import app.yubble.core.raster.Progress;
import app.yubble.core.recipe.DepthChoice;
import app.yubble.core.recipe.Recipe;
import app.yubble.core.touchup.KeptAt;
import app.yubble.core.touchup.Touchup;
import app.yubble.media.recipe.RecipeJson;
import app.yubble.server.problem.ConflictException;
import app.yubble.server.shoot.ClipFiles;
import app.yubble.server.shoot.Materials;
import app.yubble.server.shoot.PicturedStill;
import app.yubble.server.shoot.Shot;
import app.yubble.server.shoot.ShotMaterial;
import app.yubble.vision.InverseSearchFlow;
import java.util.List;
import java.util.function.BiFunction;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** Carries kept subjects through clips. */
@Component
class SubjectMaker {
    /** Of carrying: masks that an earlier one made are made again. */
    private static final int WAY = 2;

    private final Materials materials;
    private final ClipFiles clips;

    SubjectMaker(Materials materials, ClipFiles clips) {
        this.materials = materials;
        this.clips = clips;
    }

    /** What is sought for what was said of a subject: a recipe of nothing else holds it. */
    static Tracks.Sought sought(List<KeptAt> said, DepthChoice depth) {
        Touchup alone = Touchup.of("kept", Touchup.Action.REVEAL, 1, 0).withStart(new Touchup.Start(null, null, said));
        Recipe recipe = Recipe.INITIAL.withDepth(DepthChoice.of(depth.source())).withTouchups(List.of(alone));
        String key = "subject " + WAY + " " + KeptAt.key(said);
        return new Tracks.Sought(Track.Kind.SUBJECT, RecipeJson.write(recipe), key);
    }

    int frames(Shot shot) {
        return clips.sheet(shot).frames();
    }

    /** Whether every frame has the depth that it is parted by. */
    boolean hasDepth(Shot shot, DepthChoice.Source source) {
        ShotMaterial material = materials.of(shot);
        return IntStream.range(0, material.moments().size())
                .allMatch(frame -> material.knownDepth(frame, source) != null);
    }

    /**
     * Carries a subject.
     *
     * @param puts see {@link #sought}
     * @param earlier what was made of less that was said; null when that was not
     */
    byte[] made(Shot shot, String puts, BiFunction<Shot, Tracks.Sought, byte @Nullable []> earlier, Progress progress) {
        Recipe recipe = RecipeJson.read(puts);
        List<KeptAt> said = recipe.touchups().get(0).start().kept();
        DepthChoice.Source source = recipe.depth().source();
        if (!hasDepth(shot, source)) {
            throw new ConflictException("The depth of this clip is not there yet.");
        }
        ShotMaterial material = materials.of(shot);
        Keeping.Clip clip = clips.small(shot)
                .keeping(
                        shot.size(),
                        DepthChoice.of(source),
                        (frame, picture) -> new PicturedStill(material.frame(frame), picture, DepthEdges.Detail.STEADY),
                        frame -> material.frame(frame).clearMatte());
        return new Keeping(new InverseSearchFlow())
                .all(
                        clip,
                        said,
                        count -> {
                            byte[] bytes = earlier.apply(shot, sought(said.subList(0, count), recipe.depth()));
                            return bytes == null ? null : KeptMasks.read(bytes);
                        },
                        progress)
                .written();
    }
}
