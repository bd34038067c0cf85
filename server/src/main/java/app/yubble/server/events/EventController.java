package app.yubble.server.events;

import app.yubble.server.account.Sessions;
import app.yubble.server.account.SignedIn;
import app.yubble.server.news.News;
import app.yubble.server.news.NewsReader;
import app.yubble.server.problem.TooOftenException;
import app.yubble.server.shoot.Shot;
import app.yubble.server.shoot.Shots;
import io.micrometer.core.instrument.Gauge;
import io.micrometer.core.instrument.MeterRegistry;
import jakarta.servlet.http.HttpSession;
import java.io.IOException;
import java.time.Instant;
import java.util.Collection;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.UUID;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.stream.Collectors;
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
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.servlet.mvc.method.annotation.SseEmitter;

/**
 * Server-sent events: {@code shot} when one moves on, {@code deliveries} when any delivery does, on whichever node. A page that
 * comes back, here or to another node, is told what it has missed.
 */
@RestController
class EventController {
    private static final Logger LOG = LoggerFactory.getLogger(EventController.class);
    private static final int MOST_PER_ACCOUNT = 12;

    private final Shots shots;
    private final Sessions sessions;
    private final News news;
    private final List<Listener> listeners = new CopyOnWriteArrayList<>();
    private final ExecutorService writers = Executors.newCachedThreadPool(work -> {
        Thread thread = new Thread(work, "events");
        thread.setDaemon(true);
        return thread;
    });

    EventController(Shots shots, Sessions sessions, News news, MeterRegistry meters) {
        Gauge.builder("yubble.pages", listeners, List::size).register(meters);
        this.news = news;
        this.sessions = sessions;
        this.shots = shots;
    }

    /** A shot that moved on. */
    record ShotEvent(
            UUID id,
            UUID shootId,
            long revision,
            Shot.State state,
            double progress,
            @Nullable String problem) {
        static ShotEvent of(Shot shot) {
            return new ShotEvent(
                    shot.id(), shot.shootId(), shot.revision(), shot.state(), shot.progress(), shot.problem());
        }
    }

    /** @param read number of the last event that the page has read, when it was connected before */
    @GetMapping(path = "/api/events", produces = MediaType.TEXT_EVENT_STREAM_VALUE)
    SseEmitter listen(
            @AuthenticationPrincipal SignedIn who,
            HttpSession session,
            @RequestHeader(name = "Last-Event-ID", required = false) @Nullable Long read)
            throws IOException {
        makeRoom(who.id());
        Listener listener = new Listener(who.id(), session.getId(), writers);
        listener.emitter().onCompletion(() -> listeners.remove(listener));
        listener.emitter().onTimeout(listener.emitter()::complete);
        listener.emitter().onError(fault -> listeners.remove(listener));
        listener.emitter().send(SseEmitter.event().name("open").data("{}"));
        listeners.add(listener);
        // What was told while it connected it may be told twice.
        tell(news.missed(who.id(), read == null ? news.halfAMinuteAgo() : read), List.of(listener));
        return listener.emitter();
    }

    private void makeRoom(UUID account) {
        List<Listener> own = listeners.stream()
                .filter(listener -> listener.account.equals(account))
                .toList();
        if (own.size() >= MOST_PER_ACCOUNT) {
            Listener oldest = own.get(0);
            if (oldest.isBusy()) {
                // It cannot even be told to end.
                throw new TooOftenException("Too many pages of yours do not read what they asked for.");
            }
            oldest.emitter().complete();
            listeners.remove(oldest);
        }
    }

    /** Open streams would hold a graceful shutdown up. */
    @EventListener(ContextClosedEvent.class)
    void hangUp() {
        for (Listener listener : listeners) {
            if (!listener.isBusy()) {
                listener.emitter().complete();
            }
        }
        listeners.clear();
        writers.shutdownNow();
    }

    @EventListener
    void told(NewsReader.Edition edition) {
        if (!listeners.isEmpty()) {
            tell(edition.items(), listeners);
        }
    }

    private void tell(List<News.Item> items, Collection<Listener> to) {
        Set<UUID> here = to.stream().map(listener -> listener.account).collect(Collectors.toSet());
        Map<UUID, Long> changed = new TreeMap<>();
        for (News.Item item : items) {
            if (!here.contains(item.account())) {
                continue;
            }
            if (item.kind() == News.Kind.SHOT) {
                changed.put(UUID.fromString(item.subject()), item.sequence());
            } else if (item.kind() == News.Kind.DELIVERY) {
                to.stream()
                        .filter(listener -> listener.account.equals(item.account()))
                        .forEach(listener -> listener.tellDeliveries(item.sequence()));
            }
        }
        if (!changed.isEmpty()) {
            Map<UUID, List<Listener>> listening = to.stream().collect(Collectors.groupingBy(each -> each.account));
            for (Shot shot : shots.all(changed.keySet())) {
                ShotEvent event = ShotEvent.of(shot);
                long at = changed.getOrDefault(shot.id(), 0L);
                listening.getOrDefault(shot.accountId(), List.of()).forEach(listener -> listener.tell(event, at));
            }
        }
        Instant now = Instant.now();
        to.forEach(listener -> listener.flush(now));
    }

    /** Also tells those what is left that were reading before. */
    @Scheduled(fixedDelay = 1000)
    void look() {
        Instant now = Instant.now();
        for (Listener listener : listeners) {
            if (listener.isLost(now)) {
                listeners.remove(listener);
            } else {
                listener.flush(now);
            }
        }
    }

    /** Who has signed out, here or elsewhere, is told nothing more. */
    @Scheduled(fixedDelay = 4000)
    void endThoseOfNobody() {
        if (listeners.isEmpty()) {
            return;
        }
        try {
            Set<String> asked = new HashSet<>();
            listeners.forEach(listener -> asked.add(listener.session));
            Set<String> open = sessions.open(asked);
            Instant now = Instant.now();
            for (Listener listener : listeners) {
                if (asked.contains(listener.session) && !open.contains(listener.session)) {
                    listeners.remove(listener);
                    listener.end(now);
                }
            }
        } catch (DataAccessException | CannotCreateTransactionException noDatabase) {
            LOG.debug("nobody is looked for while the database is away");
        }
    }
}
