package app.yubble.server.account;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.Locale;
import java.util.Map;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;

/** After a few wrong passwords for a name, makes whoever tries wait. */
@Component
class SignInThrottle extends OncePerRequestFilter {
    private static final int FREE_TRIES = 8;
    private static final Duration WINDOW = Duration.ofMinutes(5);
    private static final int MOST_NAMES = 10_000;

    private record Tries(int count, Instant first) {}

    private final Clock clock = Clock.systemUTC();

    private final Map<String, Tries> failed = new LinkedHashMap<>() {
        private static final long serialVersionUID = 1L;

        @Override
        protected boolean removeEldestEntry(Map.Entry<String, Tries> eldest) {
            return size() > MOST_NAMES;
        }
    };

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        boolean signingIn =
                request.getMethod().equals("POST") && request.getRequestURI().equals("/api/session");
        if (signingIn && tooMany(name(request))) {
            SecurityConfiguration.problem(
                    response,
                    HttpStatus.TOO_MANY_REQUESTS,
                    "Too many wrong passwords. Wait five minutes and try again.");
            return;
        }
        chain.doFilter(request, response);
    }

    private synchronized boolean tooMany(String name) {
        Tries tries = failed.get(name);
        if (tries != null && tries.first.plus(WINDOW).isBefore(clock.instant())) {
            failed.remove(name);
            return false;
        }
        return tries != null && tries.count >= FREE_TRIES;
    }

    synchronized void failed(HttpServletRequest request) {
        failed.merge(name(request), new Tries(1, clock.instant()), (old, one) -> new Tries(old.count + 1, old.first));
    }

    synchronized void succeeded(HttpServletRequest request) {
        failed.remove(name(request));
    }

    private static String name(HttpServletRequest request) {
        String name = request.getParameter("name");
        return name == null ? "" : name.strip().toLowerCase(Locale.ROOT);
    }
}
