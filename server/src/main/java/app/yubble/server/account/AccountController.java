package app.yubble.server.account;

import app.yubble.server.problem.NotFoundException;
import app.yubble.server.problem.SecurityLog;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpSession;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import java.util.List;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
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
    private final PasswordCheck passwords;
    private final SecurityLog log;
    private final Allowance allowance;
    private final Limits limits;

    AccountController(
            Accounts accounts,
            Sessions sessions,
            PasswordCheck passwords,
            SecurityLog log,
            Allowance allowance,
            Limits limits) {
        this.allowance = allowance;
        this.limits = limits;
        this.log = log;
        this.accounts = accounts;
        this.sessions = sessions;
        this.passwords = passwords;
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
        passwords.require(who, wanted.before(), request);
        accounts.usePassword(who.id(), wanted.password());
        sessions.endAllBut(who.name(), session.getId());
        log.note(SecurityLog.Event.PASSWORD_CHANGED, "and all other sessions ended");
    }

    /** How much an account has of the server, and may have. */
    record AllowanceView(
            long bytes,
            long mostBytes,
            long shots,
            long mostShots,
            long work,
            long mostWork,
            long clipSeconds,
            long mostClipSeconds) {}

    @GetMapping("/api/account/allowance")
    AllowanceView allowance(@AuthenticationPrincipal SignedIn who) {
        Allowance.Used used = allowance.used(who.id());
        Limits.Limit most = limits.of(who.id());
        return new AllowanceView(
                used.bytes(),
                most.bytes(),
                used.shots(),
                most.shots(),
                used.work(),
                most.work(),
                used.clipSeconds(),
                most.clipSeconds());
    }

    @GetMapping("/api/account/sessions")
    List<Sessions.OpenSession> open(@AuthenticationPrincipal SignedIn who, HttpSession session) {
        return sessions.of(who.name(), session.getId());
    }

    @DeleteMapping("/api/account/sessions")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void endOthers(@AuthenticationPrincipal SignedIn who, HttpSession session) {
        sessions.endAllBut(who.name(), session.getId());
        log.note(SecurityLog.Event.SESSIONS_ENDED, "all others");
    }

    @DeleteMapping("/api/account/sessions/{id}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void end(@AuthenticationPrincipal SignedIn who, @PathVariable String id) {
        if (!sessions.end(who.name(), id)) {
            throw new NotFoundException("session");
        }
        log.note(SecurityLog.Event.SESSIONS_ENDED, id);
    }
}
