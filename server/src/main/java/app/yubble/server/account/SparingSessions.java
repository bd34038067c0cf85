package app.yubble.server.account;

import java.time.Duration;
import java.time.Instant;
import java.util.HashMap;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.springframework.session.FindByIndexNameSessionRepository;
import org.springframework.session.Session;

/**
 * Sessions in the database that are written when something of them has changed; their last use once a minute at most: a page asks for thirty
 * previews a second.
 */
final class SparingSessions<S extends Session> implements FindByIndexNameSessionRepository<SparingSessions.Sparing<S>> {
    private static final Duration TO_THE = Duration.ofMinutes(1);

    private final FindByIndexNameSessionRepository<S> stored;

    SparingSessions(FindByIndexNameSessionRepository<S> stored) {
        this.stored = stored;
    }

    @Override
    public Sparing<S> createSession() {
        Sparing<S> fresh = new Sparing<>(stored.createSession());
        fresh.changed = true;
        return fresh;
    }

    @Override
    public void save(Sparing<S> session) {
        if (session.changed) {
            stored.save(session.stored);
            session.changed = false;
        }
    }

    @Override
    public @Nullable Sparing<S> findById(String id) {
        S found = stored.findById(id);
        return found == null ? null : new Sparing<>(found);
    }

    @Override
    public void deleteById(String id) {
        stored.deleteById(id);
    }

    @Override
    public Map<String, Sparing<S>> findByIndexNameAndIndexValue(String name, String value) {
        Map<String, Sparing<S>> out = new HashMap<>();
        stored.findByIndexNameAndIndexValue(name, value).forEach((id, each) -> out.put(id, new Sparing<>(each)));
        return out;
    }

    /** A session that takes note of its use when the last note is old. */
    static final class Sparing<S extends Session> implements Session {
        private final S stored;
        /** Whether there is anything to be written. */
        private boolean changed;

        private Sparing(S stored) {
            this.stored = stored;
        }

        @Override
        public void setLastAccessedTime(Instant now) {
            if (now.isAfter(getLastAccessedTime().plus(TO_THE))) {
                stored.setLastAccessedTime(now);
                changed = true;
            }
        }

        @Override
        public Instant getLastAccessedTime() {
            return stored.getLastAccessedTime();
        }

        @Override
        public String getId() {
            return stored.getId();
        }

        @Override
        public String changeSessionId() {
            changed = true;
            return stored.changeSessionId();
        }

        @Override
        public <T> @Nullable T getAttribute(String name) {
            return stored.getAttribute(name);
        }

        @Override
        public Set<String> getAttributeNames() {
            return stored.getAttributeNames();
        }

        @Override
        public void setAttribute(String name, Object value) {
            stored.setAttribute(name, value);
            changed = true;
        }

        @Override
        public void removeAttribute(String name) {
            stored.removeAttribute(name);
            changed = true;
        }

        @Override
        public Instant getCreationTime() {
            return stored.getCreationTime();
        }

        @Override
        public void setMaxInactiveInterval(Duration interval) {
            stored.setMaxInactiveInterval(interval);
            changed = true;
        }

        @Override
        public Duration getMaxInactiveInterval() {
            return stored.getMaxInactiveInterval();
        }

        @Override
        public boolean isExpired() {
            return stored.isExpired();
        }
    }
}
