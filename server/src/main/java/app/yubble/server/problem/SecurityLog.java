package app.yubble.server.problem;

import io.micrometer.core.instrument.Counter;
import io.micrometer.core.instrument.MeterRegistry;
import java.util.Locale;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.slf4j.MDC;
import org.springframework.security.authentication.AnonymousAuthenticationToken;
import org.springframework.security.core.Authentication;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.stereotype.Component;

/**
 * What an operator has to know about who came in and who was turned away: one line each, with the account, the address and the
 * request, and never a password, a session or what was sent. The same is counted.
 */
@Component
public class SecurityLog {
    private static final Logger LOG = LoggerFactory.getLogger("app.yubble.security");
    private static final int LONGEST = 120;

    /** What has happened. */
    public enum Event {
        SIGNED_IN,
        SIGN_IN_REFUSED,
        SIGN_IN_THROTTLED,
        SIGNED_OUT,
        ACCOUNT_MADE,
        ACCOUNT_REFUSED,
        ACCOUNT_ENDED,
        PASSWORD_CHANGED,
        PASSWORD_WRONG,
        SESSIONS_ENDED,
        /** Asked for without signing in, or from another page. */
        DENIED,
        /** Asked for what is somebody else's, or not there. */
        NOT_THERE,
        /** Too much, too large or too often. */
        LIMITED,
        WRONG_HOST,
        EVERYTHING_TAKEN
    }

    private final MeterRegistry meters;

    public SecurityLog(MeterRegistry meters) {
        this.meters = meters;
    }

    /** @param about what it was about, in a few words */
    public void note(Event event, String about) {
        note(event, who(), about);
    }

    /** The same about an account that is not signed in. */
    public void note(Event event, String account, String about) {
        String name = event.name().toLowerCase(Locale.ROOT).replace('_', '-');
        Counter.builder("yubble.security").tag("event", name).register(meters).increment();
        LOG.info(
                "{} account={} from={} about={}",
                name,
                plain(account),
                plain(String.valueOf(MDC.get(RequestNames.ADDRESS))),
                plain(about));
    }

    private static String who() {
        Authentication who = SecurityContextHolder.getContext().getAuthentication();
        return who == null || who instanceof AnonymousAuthenticationToken ? "-" : who.getName();
    }

    /** On one line, and not long: it may have been chosen by an attacker. */
    private static String plain(String text) {
        String one = text.replaceAll("[\\p{C}\\s]+", "_");
        return one.length() <= LONGEST ? one : one.substring(0, LONGEST);
    }
}
