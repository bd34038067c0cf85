package app.yubble.server.shoot;

import app.yubble.core.recipe.DepthChoice;
import app.yubble.core.subject.Quality;
import app.yubble.media.picture.Camera;
import java.util.List;
import java.util.OptionalDouble;
import java.util.UUID;
import org.jspecify.annotations.Nullable;

/**
 * A shot as the interface sees it.
 *
 * @param state with REFINING depth can be used already
 * @param problem why it failed
 * @param clip null for a photo
 * @param picture changes whenever the file or its thumbnail does; null when there is no thumbnail
 * @param notice something about the file that stops nothing
 */
public record ShotView(
        UUID id,
        UUID shootId,
        String name,
        String format,
        int width,
        int height,
        long bytes,
        long revision,
        Shot.State state,
        double progress,
        @Nullable String problem,
        @Nullable String notice,
        CameraView camera,
        @Nullable ClipLength clip,
        @Nullable String picture,
        List<DepthView> depths) {
    /** Letters of a hash that tell one from another. */
    private static final int MARK = 6;

    /**
     * How long a clip is.
     *
     * @param frames null while it is still being read
     */
    public record ClipLength(
            @Nullable Integer frames, @Nullable Long micros) {}

    /** What the camera says of its lens. */
    public record CameraView(
            @Nullable Double focalLength,
            @Nullable Double sensorWidth,
            @Nullable Double fNumber,
            @Nullable Double distance) {
        static CameraView of(Camera camera) {
            return new CameraView(
                    orNull(camera.focalLength()),
                    orNull(camera.sensorWidth()),
                    orNull(camera.fNumber()),
                    orNull(camera.distance()));
        }

        private static @Nullable Double orNull(OptionalDouble value) {
            return value.isPresent() ? value.getAsDouble() : null;
        }
    }

    /**
     * A depth map.
     *
     * @param origin the estimator's name, the file's, or the format in which the photo held it
     * @param hash changes whenever the map does
     * @param quality of an estimate
     * @param confidence in the subject's matte, in [0,1]
     */
    public record DepthView(
            DepthChoice.Source source,
            String origin,
            String hash,
            @Nullable Quality quality,
            @Nullable Double confidence,
            @Nullable Double nearMetres,
            @Nullable Double farMetres) {
        static DepthView of(DepthMap map) {
            DepthMap.Content content = map.content();
            return new DepthView(
                    map.source(),
                    content.origin(),
                    content.contentHash() + (content.matteHash() == null ? "" : content.matteHash()),
                    content.quality(),
                    content.confidence(),
                    content.nearMetres(),
                    content.farMetres());
        }
    }

    static ShotView of(Shot shot, List<DepthMap> maps) {
        String thumbnail = shot.thumbnailHash();
        return new ShotView(
                shot.id(),
                shot.shootId(),
                shot.name(),
                shot.format(),
                shot.size().width(),
                shot.size().height(),
                shot.bytes(),
                shot.revision(),
                shot.state(),
                shot.progress(),
                shot.problem(),
                shot.notice(),
                CameraView.of(shot.camera()),
                shot.isClip() ? new ClipLength(shot.frames(), shot.micros()) : null,
                thumbnail == null ? null : shot.contentHash().substring(0, MARK) + thumbnail.substring(0, MARK),
                maps.stream().map(DepthView::of).toList());
    }
}
