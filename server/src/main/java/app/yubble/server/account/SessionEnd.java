package app.yubble.server.account;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import jakarta.servlet.http.HttpSession;
import java.io.IOException;
import java.time.Duration;
import java.time.Instant;
import org.springframework.web.filter.OncePerRequestFilter;

/** Ends sessions that are old, however often they are used. */
final class SessionEnd extends OncePerRequestFilter {
    private final Duration longest;

    SessionEnd(Duration longest) {
        this.longest = longest;
    }

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        HttpSession session = request.getSession(false);
        if (session != null
                && Instant.ofEpochMilli(session.getCreationTime()).plus(longest).isBefore(Instant.now())) {
            session.invalidate();
        }
        chain.doFilter(request, response);
    }
}
