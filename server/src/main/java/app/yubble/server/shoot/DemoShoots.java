package app.yubble.server.shoot;

import app.yubble.core.subject.Quality;
import java.util.UUID;
import org.springframework.stereotype.Service;

/** Puts photos with exact depth into a shoot, as somebody would who has a depth file. */
@Service
public class DemoShoots {
    private final ShootRepository shoots;
    private final Shots shots;
    private final DepthJob depthJob;

    DemoShoots(ShootRepository shoots, Shots shots, DepthJob depthJob) {
        this.shoots = shoots;
        this.shots = shots;
        this.depthJob = depthJob;
    }

    public void add(UUID account, String shootName, String name, byte[] photo, String depthName, byte[] depth) {
        Shoot shoot = shoots.findByAccountIdOrderByCreatedDesc(account).stream()
                .filter(existing -> existing.name().equals(shootName))
                .findFirst()
                .orElseGet(() -> shoots.save(new Shoot(account, shootName)));
        Shot shot = shots.bringIn(account, shoot.id(), name, photo);
        shots.bringInDepth(shot, depthName, depth);
        depthJob.enqueue(shot.id(), Engines.AUTO, Quality.BEST);
    }
}
