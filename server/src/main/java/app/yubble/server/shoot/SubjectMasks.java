package app.yubble.server.shoot;

import app.yubble.core.raster.Plane;
import app.yubble.core.touchup.KeptAt;
import java.util.List;
import java.util.function.IntFunction;
import org.jspecify.annotations.Nullable;

/** Masks of subjects that are kept through clips. */
public interface SubjectMasks {
    /**
     * A subject's masks.
     *
     * @param name of all of them, for good
     * @param at the coarse mask at a frame; null where it was not looked for
     */
    record Known(String name, IntFunction<@Nullable Plane> at) {}

    /** What was carried from what was said; null when that is not done yet. */
    @Nullable
    Known known(Shot shot, List<KeptAt> said);
}
