package app.yubble.server.account;

import app.yubble.server.problem.SecurityLog;
import java.time.Duration;
import org.springframework.security.authentication.BadCredentialsException;
import org.springframework.security.authentication.dao.DaoAuthenticationProvider;
import org.springframework.security.core.Authentication;
import org.springframework.security.core.AuthenticationException;
import org.springframework.security.core.userdetails.UserDetails;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.security.web.authentication.WebAuthenticationDetails;
import org.springframework.stereotype.Component;

/**
 * Checks a password, unless whoever asks has been wrong too often: for one account from one address, so that nobody can lock
 * somebody else out, and from one address for all accounts.
 */
@Component
class ThrottledSignIn extends DaoAuthenticationProvider {
    private static final Tries.Limit FOR_ACCOUNT = new Tries.Limit("sign-in", 8, Duration.ofMinutes(5));
    private static final Tries.Limit FROM_ADDRESS = new Tries.Limit("sign-in from", 100, Duration.ofMinutes(5));

    private final Accounts accounts;
    private final Tries tries;
    private final SecurityLog log;

    ThrottledSignIn(Accounts accounts, PasswordEncoder encoder, Tries tries, SecurityLog log) {
        super(accounts);
        this.accounts = accounts;
        this.log = log;
        setPasswordEncoder(encoder);
        this.tries = tries;
    }

    @Override
    protected Authentication createSuccessAuthentication(Object principal, Authentication asked, UserDetails user) {
        Object who = user instanceof Accounts.Checked checked ? checked.who() : principal;
        return super.createSuccessAuthentication(who, asked, user);
    }

    /** Somebody has to wait. */
    static final class TooManyTriesException extends AuthenticationException {
        private static final long serialVersionUID = 1L;

        TooManyTriesException() {
            super("too many wrong passwords");
        }
    }

    @Override
    public Authentication authenticate(Authentication asked) {
        String address =
                asked.getDetails() instanceof WebAuthenticationDetails details ? details.getRemoteAddress() : "";
        String account = AccountName.folded(asked.getName()) + '\0' + address;
        if (tries.isOver(FOR_ACCOUNT, account) || tries.isOver(FROM_ADDRESS, address)) {
            log.note(SecurityLog.Event.SIGN_IN_THROTTLED, named(asked), "wait");
            throw new TooManyTriesException();
        }
        try {
            Authentication who = super.authenticate(asked);
            tries.forget(FOR_ACCOUNT, account);
            return who;
        } catch (BadCredentialsException wrong) {
            tries.count(FOR_ACCOUNT, account);
            tries.count(FROM_ADDRESS, address);
            log.note(SecurityLog.Event.SIGN_IN_REFUSED, named(asked), "name or password");
            throw wrong;
        }
    }

    /** What is no name of an account may be a password in the wrong field: it is not written down. */
    private String named(Authentication asked) {
        return accounts.find(asked.getName()).isPresent() ? asked.getName() : "unknown";
    }
}
