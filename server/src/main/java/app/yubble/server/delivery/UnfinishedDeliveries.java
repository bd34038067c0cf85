package app.yubble.server.delivery;

import app.yubble.server.jobs.Unfinished;
import java.time.Instant;
import java.util.List;
import java.util.UUID;
import org.springframework.stereotype.Component;

/** Deliveries under way. */
@Component
class UnfinishedDeliveries implements Unfinished {
    private final Deliveries deliveries;
    private final DeliveryJob job;

    UnfinishedDeliveries(Deliveries deliveries, DeliveryJob job) {
        this.deliveries = deliveries;
        this.job = job;
    }

    @Override
    public List<UUID> untouchedSince(Instant moment) {
        return deliveries.untouchedSince(moment);
    }

    @Override
    public boolean claim(UUID id, Instant moment) {
        return deliveries.claim(id, moment);
    }

    @Override
    public void resume(UUID id) {
        job.enqueue(deliveries.byId(id));
    }
}
