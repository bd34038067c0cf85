package app.yubble.server.account;

import app.yubble.server.problem.SecurityLog;
import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.Locale;
import java.util.regex.Pattern;
import org.springframework.http.HttpStatus;
import org.springframework.security.authentication.AnonymousAuthenticationToken;
import org.springframework.security.core.Authentication;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.web.filter.OncePerRequestFilter;

/**
 * Refuses bodies that are too long before a byte of them is read, whatever they say they are: a stranger's after a form's length,
 * and no file of theirs at all; of somebody signed in whatever is no file after the length of any recipe. Files have a limit of their own.
 */
final class BodyLimit extends OncePerRequestFilter {
    private static final Pattern CLIPS =
            Pattern.compile("/api/(shoots/[0-9a-f-]{36}/clips|shots/[0-9a-f-]{36}/depth-clip)");
    private static final String LENGTH = "length";
    private static final long MOST_BYTES = 32L << 20;
    private static final long MOST_OF_STRANGERS = 16 << 10;

    private final SecurityLog log;

    BodyLimit(SecurityLog log) {
        this.log = log;
    }

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        boolean signedIn = isSignedIn();
        String type = request.getContentType();
        boolean file = type != null && type.toLowerCase(Locale.ROOT).startsWith("multipart/");
        // A clip has a limit of its own, too, and is not held in memory.
        file |= signedIn && CLIPS.matcher(request.getRequestURI()).matches();
        long length = request.getContentLengthLong();
        boolean untold = length < 0 && request.getHeader("Transfer-Encoding") != null;
        if (file && !signedIn) {
            log.note(SecurityLog.Event.DENIED, request.getMethod() + " a file");
            SecurityConfiguration.problem(response, HttpStatus.UNAUTHORIZED, "Sign in first.");
        } else if (untold && !file) {
            SecurityConfiguration.problem(
                    response, HttpStatus.LENGTH_REQUIRED, LENGTH, "The length of the request must be told.");
        } else if (!file && length > (signedIn ? MOST_BYTES : MOST_OF_STRANGERS)) {
            log.note(SecurityLog.Event.LIMITED, "a body of " + length + " bytes");
            SecurityConfiguration.problem(
                    response,
                    HttpStatus.CONTENT_TOO_LARGE,
                    LENGTH,
                    signedIn ? "This is more than a recipe may hold: at most 32 MB." : "This is too long.");
        } else {
            chain.doFilter(request, response);
        }
    }

    private static boolean isSignedIn() {
        Authentication who = SecurityContextHolder.getContext().getAuthentication();
        return who != null && who.isAuthenticated() && !(who instanceof AnonymousAuthenticationToken);
    }
}
