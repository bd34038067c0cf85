package app.yubble.server.account;

import app.yubble.server.problem.SecurityLog;
import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.springframework.http.HttpStatus;
import org.springframework.web.filter.OncePerRequestFilter;

/**
 * Answers only under the names that the server is known by. A page of somebody else whose name is made to lead here would otherwise be
 * served as this application's own, with the rights of whoever looks at it.
 */
final class HostFilter extends OncePerRequestFilter {
    private static final List<String> LOOPBACK = List.of("localhost", "127.0.0.1", "[::1]", "0:0:0:0:0:0:0:1");

    private final Set<String> names;
    private final SecurityLog log;

    /** @param more than the names of this machine for itself */
    HostFilter(List<String> more, SecurityLog log) {
        this.log = log;
        names = Stream.concat(LOOPBACK.stream(), more.stream())
                .map(name -> name.strip().toLowerCase(Locale.ROOT))
                .collect(Collectors.toUnmodifiableSet());
    }

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        if (names.contains(request.getServerName().toLowerCase(Locale.ROOT))) {
            chain.doFilter(request, response);
        } else {
            log.note(SecurityLog.Event.WRONG_HOST, request.getServerName());
            SecurityConfiguration.problem(
                    response,
                    HttpStatus.MISDIRECTED_REQUEST,
                    "refused",
                    "This server is not known by that name; yubble.hosts says by which.");
        }
    }
}
