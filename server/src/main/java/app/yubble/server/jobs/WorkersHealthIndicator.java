package app.yubble.server.jobs;

import org.jobrunr.server.BackgroundJobServer;
import org.springframework.beans.factory.ObjectProvider;
import org.springframework.boot.health.contributor.Health;
import org.springframework.boot.health.contributor.HealthIndicator;
import org.springframework.stereotype.Component;

/** A server whose workers have stopped is not ready: what it is asked to make would wait. One that has none is. */
@Component
class WorkersHealthIndicator implements HealthIndicator {
    private final ObjectProvider<BackgroundJobServer> workers;

    WorkersHealthIndicator(ObjectProvider<BackgroundJobServer> workers) {
        this.workers = workers;
    }

    @Override
    public Health health() {
        BackgroundJobServer server = workers.getIfAvailable();
        return server == null || server.isRunning()
                ? Health.up().build()
                : Health.down().withDetail("workers", "stopped").build();
    }
}
