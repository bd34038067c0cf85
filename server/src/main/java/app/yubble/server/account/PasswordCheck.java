package app.yubble.server.account;

import app.yubble.server.problem.RefusedException;
import app.yubble.server.problem.SecurityLog;
import app.yubble.server.problem.TooOftenException;
import jakarta.servlet.http.HttpServletRequest;
import org.springframework.security.authentication.BadCredentialsException;
import org.springframework.security.authentication.UsernamePasswordAuthenticationToken;
import org.springframework.security.web.authentication.WebAuthenticationDetails;
import org.springframework.stereotype.Component;

/** Asks somebody who is signed in for the password again, before what cannot be taken back. */
@Component
public class PasswordCheck {
    private final ThrottledSignIn signIn;
    private final SecurityLog log;

    PasswordCheck(ThrottledSignIn signIn, SecurityLog log) {
        this.log = log;
        this.signIn = signIn;
    }

    /** @throws RefusedException when it is another one */
    public void require(SignedIn who, String password, HttpServletRequest request) {
        UsernamePasswordAuthenticationToken asked =
                UsernamePasswordAuthenticationToken.unauthenticated(who.name(), password);
        asked.setDetails(new WebAuthenticationDetails(request));
        try {
            signIn.authenticate(asked);
        } catch (BadCredentialsException wrong) {
            log.note(SecurityLog.Event.PASSWORD_WRONG, "confirming");
            throw new RefusedException("That is not the password of this account.");
        } catch (ThrottledSignIn.TooManyTriesException tooMany) {
            throw new TooOftenException("Too many wrong passwords. Wait five minutes and try again.");
        }
    }
}
