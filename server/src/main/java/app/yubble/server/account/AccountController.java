package app.yubble.server.account;

import app.yubble.server.problem.NotFoundException;
import app.yubble.server.problem.RefusedException;
import app.yubble.server.problem.TooOftenException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpSession;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import java.util.List;
import org.springframework.http.HttpStatus;
import org.springframework.security.authentication.BadCredentialsException;
import org.springframework.security.authentication.UsernamePasswordAuthenticationToken;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.security.web.authentication.WebAuthenticationDetails;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** One's own account: its password and where it is signed in. */
@RestController
class AccountController {
    private final Accounts accounts;
    private final Sessions sessions;
    private final ThrottledSignIn signIn;

    AccountController(Accounts accounts, Sessions sessions, ThrottledSignIn signIn) {
        this.accounts = accounts;
        this.sessions = sessions;
        this.signIn = signIn;
    }

    record NewPassword(@NotNull String before, @NotNull String password) {}

    /** Ends all other sessions: whoever changes a password may have lost the one before. */
    @PutMapping("/api/account/password")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void changePassword(
            @AuthenticationPrincipal SignedIn who,
            @RequestBody @Valid NewPassword wanted,
            HttpServletRequest request,
            HttpSession session) {
        UsernamePasswordAuthenticationToken asked =
                UsernamePasswordAuthenticationToken.unauthenticated(who.name(), wanted.before());
        asked.setDetails(new WebAuthenticationDetails(request));
        try {
            signIn.authenticate(asked);
        } catch (BadCredentialsException wrong) {
            throw new RefusedException("The password until now is another one.");
        } catch (ThrottledSignIn.TooManyTriesException tooMany) {
            throw new TooOftenException("Too many wrong passwords. Wait five minutes and try again.");
        }
        accounts.usePassword(who.id(), wanted.password());
        sessions.endAllBut(who.name(), session.getId());
    }

    @GetMapping("/api/account/sessions")
    List<Sessions.OpenSession> open(@AuthenticationPrincipal SignedIn who, HttpSession session) {
        return sessions.of(who.name(), session.getId());
    }

    @DeleteMapping("/api/account/sessions")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void endOthers(@AuthenticationPrincipal SignedIn who, HttpSession session) {
        sessions.endAllBut(who.name(), session.getId());
    }

    @DeleteMapping("/api/account/sessions/{id}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void end(@AuthenticationPrincipal SignedIn who, @PathVariable String id) {
        if (!sessions.end(who.name(), id)) {
            throw new NotFoundException("session");
        }
    }
}
