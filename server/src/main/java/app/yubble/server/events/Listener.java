package app.yubble.server.events;

import java.io.IOException;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.concurrent.Executor;
import org.springframework.http.MediaType;
import org.springframework.web.servlet.mvc.method.annotation.SseEmitter;

/** An open page that is told what happens. What it has not read yet is kept once for each shot, the newest. */
final class Listener {
    private static final long OPEN_FOR = Duration.ofMinutes(30).toMillis();
    /** A page that has nothing to read for so long is told that the connection still stands. */
    private static final Duration QUIET = Duration.ofSeconds(16);
    /** More is kept for nobody. */
    private static final int MOST_PENDING = 5000;

    final UUID account;
    /** By which its owner is signed in. */
    final String session;

    private final SseEmitter emitter = new SseEmitter(OPEN_FOR);
    private final Outlet outlet;
    private final Map<UUID, EventController.ShotEvent> pending = new LinkedHashMap<>();
    private boolean deliveries;
    private long sequence;
    private Instant wrote = Instant.now();

    Listener(UUID account, String session, Executor writers) {
        this.account = account;
        this.session = session;
        outlet = new Outlet(writers);
    }

    SseEmitter emitter() {
        return emitter;
    }

    boolean isBusy() {
        return outlet.isBusy();
    }

    /** Whether nobody reads at its other end. */
    boolean isLost(Instant now) {
        return outlet.isLost(now) || isOverfull();
    }

    private synchronized boolean isOverfull() {
        return pending.size() > MOST_PENDING;
    }

    /** A shot of its account has moved on. */
    synchronized void tell(EventController.ShotEvent event, long at) {
        pending.remove(event.id());
        pending.put(event.id(), event);
        sequence = Math.max(sequence, at);
    }

    /** A delivery of its account has moved on. */
    synchronized void tellDeliveries(long at) {
        deliveries = true;
        sequence = Math.max(sequence, at);
    }

    /** Writes what there is, unless it is still reading what it was told before. */
    synchronized void flush(Instant now) {
        if (outlet.isBusy()) {
            return;
        }
        List<SseEmitter.SseEventBuilder> events = new ArrayList<>();
        for (EventController.ShotEvent each : pending.values()) {
            events.add(event("shot").data(each, MediaType.APPLICATION_JSON));
        }
        if (deliveries) {
            events.add(event("deliveries").data("{}"));
        }
        if (events.isEmpty() && wrote.plus(QUIET).isBefore(now)) {
            events.add(SseEmitter.event().comment("still here"));
        }
        if (!events.isEmpty()) {
            pending.clear();
            deliveries = false;
            wrote = now;
            outlet.begin(now, () -> send(events));
        }
    }

    /** By its number a page that comes back says what it has read. */
    private SseEmitter.SseEventBuilder event(String name) {
        return SseEmitter.event().id(String.valueOf(sequence)).name(name);
    }

    private void send(List<SseEmitter.SseEventBuilder> events) throws IOException {
        for (SseEmitter.SseEventBuilder event : events) {
            emitter.send(event);
        }
    }

    /** Ends the stream; the page connects again, perhaps elsewhere. */
    void end(Instant now) {
        if (!outlet.isBusy()) {
            outlet.begin(now, emitter::complete);
        }
    }
}
