package app.yubble.server.shoot;

import app.yubble.media.picture.Camera;
import java.util.List;
import java.util.OptionalDouble;
import org.jspecify.annotations.Nullable;

/** Shots as the interface sees them. */
final class ShotViews {
    private ShotViews() {}

    static ShootController.ShotView of(Shot shot, List<DepthMap> maps) {
        Camera camera = shot.camera();
        return new ShootController.ShotView(
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
                new ShootController.CameraView(
                        orNull(camera.focalLength()),
                        orNull(camera.sensorWidth()),
                        orNull(camera.fNumber()),
                        orNull(camera.distance())),
                maps.stream().map(ShotViews::depth).toList());
    }

    private static ShootController.DepthView depth(DepthMap map) {
        DepthMap.Content content = map.content();
        return new ShootController.DepthView(
                map.source(),
                content.origin(),
                content.contentHash() + (content.matteHash() == null ? "" : content.matteHash()),
                content.quality(),
                content.confidence(),
                content.nearMetres(),
                content.farMetres());
    }

    private static @Nullable Double orNull(OptionalDouble value) {
        return value.isPresent() ? value.getAsDouble() : null;
    }
}
