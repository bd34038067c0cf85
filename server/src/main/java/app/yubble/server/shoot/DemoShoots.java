package app.yubble.server.shoot;

import app.yubble.server.YubbleProperties;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;

/** Puts photos into a shoot, with exact depth as somebody would who has a depth file. */
@Service
public class DemoShoots {
    private final ShootRepository shoots;
    private final Shots shots;
    private final DepthJob depthJob;
    private final YubbleProperties properties;

    DemoShoots(ShootRepository shoots, Shots shots, DepthJob depthJob, YubbleProperties properties) {
        this.properties = properties;
        this.shoots = shoots;
        this.shots = shots;
        this.depthJob = depthJob;
    }

    public void add(
            UUID account,
            String shootName,
            String name,
            byte[] photo,
            @Nullable String depthName,
            byte @Nullable [] depth) {
        Shoot shoot = shoots.findByAccountIdOrderByCreatedDesc(account).stream()
                .filter(existing -> existing.name().equals(shootName))
                .findFirst()
                .orElseGet(() -> shoots.save(new Shoot(account, shootName)));
        Shot shot = shots.bringIn(account, shoot.id(), name, photo);
        if (depthName != null && depth != null) {
            shots.bringInDepth(shot, depthName, depth);
        }
        depthJob.enqueue(shot.id(), Engines.AUTO, properties.firstDepth());
    }
}
