package app.yubble.server.events;

import app.yubble.server.account.SignedIn;
import app.yubble.server.delivery.Deliveries;
import app.yubble.server.shoot.Shot;
import app.yubble.server.shoot.Shots;
import java.io.IOException;
import java.time.Duration;
import java.time.Instant;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.UUID;
import java.util.concurrent.CopyOnWriteArrayList;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.context.event.ContextClosedEvent;
import org.springframework.context.event.EventListener;
import org.springframework.dao.DataAccessException;
import org.springframework.http.MediaType;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.transaction.CannotCreateTransactionException;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.servlet.mvc.method.annotation.SseEmitter;

/**
 * Server-sent events: {@code shot} when one moves on, {@code deliveries} when any delivery does.
 *
 * <p>Changes are read from the database a few times a second for the accounts that have a page open, so it does not
 * matter which node does the work. Each look goes back {@link #LOOK_BACK}, because a change carries the time at which it was
 * made but can be seen only once it is committed; what a page was told already is not told again.
 */
@RestController
class EventController {
    private static final Logger LOG = LoggerFactory.getLogger(EventController.class);
    private static final long OPEN_FOR = Duration.ofMinutes(30).toMillis();
    private static final Duration LOOK_BACK = Duration.ofSeconds(30);
    private static final int MOST_PER_ACCOUNT = 12;

    private final Shots shots;
    private final Deliveries deliveries;
    private final List<Listener> listeners = new CopyOnWriteArrayList<>();

    EventController(Shots shots, Deliveries deliveries) {
        this.shots = shots;
        this.deliveries = deliveries;
    }

    /** A shot that moved on. */
    record ShotEvent(
            UUID id,
            UUID shootId,
            long revision,
            Shot.State state,
            double progress,
            @Nullable String problem) {}

    private static final class Listener {
        final UUID account;
        final SseEmitter emitter = new SseEmitter(OPEN_FOR);
        Map<UUID, Long> told = Map.of();
        Map<UUID, Long> toldDeliveries = Map.of();
        int quiet;

        Listener(UUID account) {
            this.account = account;
        }
    }

    @GetMapping(path = "/api/events", produces = MediaType.TEXT_EVENT_STREAM_VALUE)
    SseEmitter listen(@AuthenticationPrincipal SignedIn who) throws IOException {
        List<Listener> own = listeners.stream()
                .filter(listener -> listener.account.equals(who.id()))
                .toList();
        if (own.size() >= MOST_PER_ACCOUNT) {
            own.get(0).emitter.complete();
            listeners.remove(own.get(0));
        }
        Listener listener = new Listener(who.id());
        listener.emitter.onCompletion(() -> listeners.remove(listener));
        listener.emitter.onTimeout(listener.emitter::complete);
        listener.emitter.onError(fault -> listeners.remove(listener));
        listener.emitter.send(SseEmitter.event().name("open").data("{}"));
        listeners.add(listener);
        return listener.emitter;
    }

    /** Open streams would hold a graceful shutdown up. */
    @EventListener(ContextClosedEvent.class)
    void hangUp() {
        listeners.forEach(listener -> listener.emitter.complete());
        listeners.clear();
    }

    @Scheduled(fixedDelay = 400)
    void tell() {
        for (Listener listener : listeners) {
            try {
                tell(listener);
            } catch (IOException | IllegalStateException gone) {
                listeners.remove(listener);
            } catch (DataAccessException | CannotCreateTransactionException noDatabase) {
                LOG.debug("no events while the database is away");
                return;
            }
        }
    }

    private void tell(Listener listener) throws IOException {
        Instant since = Instant.now().minus(LOOK_BACK);
        boolean some = false;
        Map<UUID, Long> told = new HashMap<>();
        for (Shot shot : shots.changedAfter(listener.account, since)) {
            told.put(shot.id(), shot.revision());
            if (!Objects.equals(listener.told.get(shot.id()), shot.revision())) {
                ShotEvent event = new ShotEvent(
                        shot.id(), shot.shootId(), shot.revision(), shot.state(), shot.progress(), shot.problem());
                listener.emitter.send(SseEmitter.event().name("shot").data(event, MediaType.APPLICATION_JSON));
                some = true;
            }
        }
        listener.told = told;
        Map<UUID, Long> changed = deliveries.changedAfter(listener.account, since);
        if (!listener.toldDeliveries.entrySet().containsAll(changed.entrySet())) {
            listener.emitter.send(SseEmitter.event().name("deliveries").data("{}"));
            some = true;
        }
        listener.toldDeliveries = changed;
        listener.quiet = some ? 0 : listener.quiet + 1;
        if (listener.quiet > 40) {
            // Keeps the connection open and finds out whether anybody still listens.
            listener.emitter.send(SseEmitter.event().comment("still here"));
            listener.quiet = 0;
        }
    }
}
