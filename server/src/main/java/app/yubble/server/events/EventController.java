package app.yubble.server.events;

import app.yubble.server.account.Sessions;
import app.yubble.server.account.SignedIn;
import app.yubble.server.delivery.Deliveries;
import app.yubble.server.problem.TooOftenException;
import app.yubble.server.shoot.Shot;
import app.yubble.server.shoot.Shots;
import jakarta.servlet.http.HttpSession;
import java.io.IOException;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.UUID;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
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
    /** Every so many looks: who has signed out is told nothing more after four seconds. */
    private static final int LOOKS_AT_SESSION = 10;
    /** Looks in a row that find nothing. */
    private static final int MOST_QUIET = 40;

    private final Shots shots;
    private final Deliveries deliveries;
    private final Sessions sessions;
    private final List<Listener> listeners = new CopyOnWriteArrayList<>();
    private final ExecutorService writers = Executors.newCachedThreadPool(work -> {
        Thread thread = new Thread(work, "events");
        thread.setDaemon(true);
        return thread;
    });

    EventController(Shots shots, Deliveries deliveries, Sessions sessions) {
        this.sessions = sessions;
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
        /** By which its owner is signed in. */
        final String session;

        final Outlet outlet;
        final SseEmitter emitter = new SseEmitter(OPEN_FOR);
        Map<UUID, Long> told = Map.of();
        Map<UUID, Long> toldDeliveries = Map.of();
        int quiet;
        int looks;

        Listener(UUID account, String session, Outlet outlet) {
            this.account = account;
            this.session = session;
            this.outlet = outlet;
        }
    }

    @GetMapping(path = "/api/events", produces = MediaType.TEXT_EVENT_STREAM_VALUE)
    SseEmitter listen(@AuthenticationPrincipal SignedIn who, HttpSession session) throws IOException {
        List<Listener> own = listeners.stream()
                .filter(listener -> listener.account.equals(who.id()))
                .toList();
        if (own.size() >= MOST_PER_ACCOUNT) {
            Listener oldest = own.get(0);
            if (oldest.outlet.isBusy()) {
                // It cannot even be told to end.
                throw new TooOftenException("Too many pages of yours do not read what they asked for.");
            }
            oldest.emitter.complete();
            listeners.remove(oldest);
        }
        Listener listener = new Listener(who.id(), session.getId(), new Outlet(writers));
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
        for (Listener listener : listeners) {
            if (!listener.outlet.isBusy()) {
                listener.emitter.complete();
            }
        }
        listeners.clear();
        writers.shutdownNow();
    }

    @Scheduled(fixedDelay = 400)
    void tell() {
        Instant now = Instant.now();
        for (Listener listener : listeners) {
            try {
                if (listener.outlet.isLost(now)) {
                    listeners.remove(listener);
                } else if (!listener.outlet.isBusy()) {
                    look(listener, now);
                }
            } catch (DataAccessException | CannotCreateTransactionException noDatabase) {
                LOG.debug("no events while the database is away");
                return;
            }
        }
    }

    private void look(Listener listener, Instant now) {
        if (listener.looks++ % LOOKS_AT_SESSION == 0 && !sessions.isOpen(listener.session)) {
            listeners.remove(listener);
            listener.outlet.begin(now, listener.emitter::complete);
        } else {
            tell(listener, now);
        }
    }

    private void tell(Listener listener, Instant now) {
        Instant since = now.minus(LOOK_BACK);
        List<SseEmitter.SseEventBuilder> events = new ArrayList<>();
        Map<UUID, Long> told = new HashMap<>();
        for (Shot shot : shots.changedAfter(listener.account, since)) {
            told.put(shot.id(), shot.revision());
            if (!Objects.equals(listener.told.get(shot.id()), shot.revision())) {
                ShotEvent event = new ShotEvent(
                        shot.id(), shot.shootId(), shot.revision(), shot.state(), shot.progress(), shot.problem());
                events.add(SseEmitter.event().name("shot").data(event, MediaType.APPLICATION_JSON));
            }
        }
        listener.told = told;
        Map<UUID, Long> changed = deliveries.changedAfter(listener.account, since);
        if (!listener.toldDeliveries.entrySet().containsAll(changed.entrySet())) {
            events.add(SseEmitter.event().name("deliveries").data("{}"));
        }
        listener.toldDeliveries = changed;
        listener.quiet = events.isEmpty() ? listener.quiet + 1 : 0;
        if (listener.quiet > MOST_QUIET) {
            // Keeps the connection open and finds out whether anybody still listens.
            events.add(SseEmitter.event().comment("still here"));
            listener.quiet = 0;
        }
        if (!events.isEmpty()) {
            listener.outlet.begin(now, () -> {
                for (SseEmitter.SseEventBuilder event : events) {
                    listener.emitter.send(event);
                }
            });
        }
    }
}
