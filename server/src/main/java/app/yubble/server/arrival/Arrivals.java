package app.yubble.server.arrival;

import app.yubble.server.YubbleProperties;
import app.yubble.server.account.Accounts;
import app.yubble.server.depth.DepthJob;
import app.yubble.server.shoot.DepthMaps;
import app.yubble.server.shoot.Shot;
import app.yubble.server.shoot.Shots;
import java.util.UUID;
import java.util.function.Consumer;
import org.springframework.stereotype.Service;

/** Takes photos in. */
@Service
public class Arrivals {
    private final Shots shots;
    private final DepthMaps maps;
    private final DepthJob depth;
    private final Accounts accounts;
    private final YubbleProperties properties;

    Arrivals(Shots shots, DepthMaps maps, DepthJob depth, Accounts accounts, YubbleProperties properties) {
        this.shots = shots;
        this.maps = maps;
        this.depth = depth;
        this.accounts = accounts;
        this.properties = properties;
    }

    /** Decodes and stores a photo, so that a file that cannot be read is refused at once, and begins with its depth. */
    public Shot bringIn(UUID account, UUID shoot, String name, byte[] photo) {
        return bringIn(account, shoot, name, photo, shot -> {});
    }

    /** The same with a depth map from a file, which is there before the shot gets its first version. */
    public Shot bringIn(UUID account, UUID shoot, String name, byte[] photo, String depthName, byte[] map) {
        return bringIn(account, shoot, name, photo, shot -> maps.bringIn(shot, depthName, map));
    }

    private Shot bringIn(UUID account, UUID shoot, String name, byte[] photo, Consumer<Shot> before) {
        Shot shot = shots.bringIn(account, shoot, name, photo);
        before.accept(shot);
        depth.enqueue(shot.id(), accounts.depthEngine(account), properties.firstDepth());
        return shots.byId(shot.id());
    }
}
