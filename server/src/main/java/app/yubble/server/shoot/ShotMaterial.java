package app.yubble.server.shoot;

import app.yubble.core.clip.Moment;
import app.yubble.core.recipe.DepthChoice;
import app.yubble.core.refocus.Material;
import org.jspecify.annotations.Nullable;

/** A shot for the refocus line. */
public interface ShotMaterial extends Material {
    @Override
    ShotStill at(Moment moment);

    /**
     * A frame by its number, from 0; a photo has one.
     *
     * @throws app.yubble.server.problem.NotFoundException when there is none
     */
    ShotStill frame(int number);

    /** Names the depth that a frame has of a source; null when there is none yet. Nothing is asked for by it. */
    @Nullable
    String knownDepth(int frame, DepthChoice.Source source);

    /** The source that a new version starts with: what somebody brought in, else what the camera measured. */
    DepthChoice.Source usualSource();
}
