package app.yubble.core.depth;

import app.yubble.core.raster.Plane;
import app.yubble.core.subject.Subject;
import org.jspecify.annotations.Nullable;

/**
 * What an estimator found.
 *
 * @param nearness in [0,1], of any size with the picture's shape; its edges may be soft, its order counts
 * @param subject the main subject; null when the estimator does not look for one
 * @param sure how probably nearness is right, in [0,1], of any size with the picture's shape; null when the estimator cannot tell
 * @param kin what places are like; null when the estimator cannot tell
 */
public record DepthEstimate(
        Plane nearness,
        @Nullable Subject subject,
        @Nullable Plane sure,
        @Nullable Kin kin) {
    public DepthEstimate(Plane nearness, @Nullable Subject subject) {
        this(nearness, subject, null, null);
    }

    public static DepthEstimate of(Plane nearness) {
        return new DepthEstimate(nearness, null);
    }

    /** The matte when it may be used. */
    public @Nullable Plane clearMatte() {
        return subject != null && subject.clear() ? subject.matte() : null;
    }
}
