package app.yubble.server.node;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.Cookie;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import org.springframework.http.HttpHeaders;
import org.springframework.http.ResponseCookie;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;

/** Tells browsers which node they have reached, so that a proxy can bring them there again: what a page looked at last lies there. */
@Component
class NodeCookie extends OncePerRequestFilter {
    static final String NAME = "yubble-node";

    private final Node node;

    NodeCookie(Node node) {
        this.node = node;
    }

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        if (node.isNamed() && !isKnown(request.getCookies())) {
            response.addHeader(
                    HttpHeaders.SET_COOKIE,
                    ResponseCookie.from(NAME, node.name())
                            .path("/")
                            .httpOnly(true)
                            .sameSite("Strict")
                            .secure(request.isSecure())
                            .build()
                            .toString());
        }
        chain.doFilter(request, response);
    }

    private boolean isKnown(Cookie @org.jspecify.annotations.Nullable [] cookies) {
        if (cookies == null) {
            return false;
        }
        for (Cookie each : cookies) {
            if (each.getName().equals(NAME)) {
                return each.getValue().equals(node.name());
            }
        }
        return false;
    }
}
