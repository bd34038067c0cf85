package app.yubble.server.problem;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import org.springframework.http.MediaType;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;

/** Refuses JSON that is longer than any recipe, before it is read. Uploads have a limit of their own. */
@Component
class LargeBodyFilter extends OncePerRequestFilter {
    static final long MOST_BYTES = 32L << 20;

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        String type = request.getContentType();
        boolean json = type != null && type.startsWith(MediaType.APPLICATION_JSON_VALUE);
        boolean untold = request.getContentLengthLong() < 0 && request.getHeader("Transfer-Encoding") != null;
        if (!json || !untold && request.getContentLengthLong() <= MOST_BYTES) {
            chain.doFilter(request, response);
            return;
        }
        response.setStatus(
                untold ? HttpServletResponse.SC_LENGTH_REQUIRED : HttpServletResponse.SC_REQUEST_ENTITY_TOO_LARGE);
        response.setContentType("application/problem+json");
        response.setCharacterEncoding(StandardCharsets.UTF_8.name());
        response.getWriter()
                .write(
                        untold
                                ? "{\"type\":\"/problems/length\",\"title\":\"Length Required\",\"status\":411,\"detail\":\"The length of the request must be told.\"}"
                                : "{\"type\":\"/problems/length\",\"title\":\"Too Large\",\"status\":413,\"detail\":\"This is more than a recipe may hold: at most 32 MB.\"}");
    }
}
