package app.yubble.server.depth;

import app.yubble.core.depth.DepthEstimator;
import app.yubble.server.problem.RefusedException;
import app.yubble.vision.DepthEngines;
import java.util.List;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Component;

/** The depth estimators of this installation. */
@Component
public class Engines {
    public static final String AUTO = DepthEngines.AUTO;

    private final DepthEngines engines;

    Engines(DepthEngines engines) {
        this.engines = engines;
    }

    /** Loads the networks beside the start, so that the first photo does not wait for it. */
    @EventListener(ApplicationReadyEvent.class)
    void warmUp() {
        Thread loading = new Thread(engines::warmUp, "network-loading");
        loading.setDaemon(true);
        loading.start();
    }

    /** @throws RefusedException naming the ones there are */
    public void require(String name) {
        named(name);
    }

    DepthEstimator named(String name) {
        return engines.named(name)
                .orElseThrow(() -> new RefusedException("There is no depth network \"" + name + "\"; there are auto, "
                        + String.join(", ", engines.names()) + "."));
    }

    /** The one of that name, or the best there is when it has been taken away since. */
    DepthEstimator namedOrBest(String name) {
        return engines.named(name).orElseGet(engines::automatic);
    }

    public boolean hasLearned() {
        return engines.hasLearned();
    }

    public List<DepthEngines.Installed> installed() {
        return engines.installed();
    }
}
