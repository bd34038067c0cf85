package app.yubble.server.problem;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.security.SecureRandom;
import java.util.HexFormat;
import org.slf4j.MDC;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;

/** Gives every request a name, which its answer tells and all lines of the log about it carry. */
@Component
@Order(Ordered.HIGHEST_PRECEDENCE + 5)
class RequestNames extends OncePerRequestFilter {
    static final String HEADER = "X-Request-Id";
    static final String REQUEST = "request";
    static final String ADDRESS = "address";
    private static final int BYTES = 6;

    private final SecureRandom random = new SecureRandom();

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        byte[] name = new byte[BYTES];
        random.nextBytes(name);
        MDC.put(REQUEST, HexFormat.of().formatHex(name));
        MDC.put(ADDRESS, request.getRemoteAddr());
        response.setHeader(HEADER, MDC.get(REQUEST));
        try {
            chain.doFilter(request, response);
        } finally {
            MDC.remove(REQUEST);
            MDC.remove(ADDRESS);
        }
    }
}
