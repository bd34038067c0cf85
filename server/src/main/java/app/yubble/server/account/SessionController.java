package app.yubble.server.account;

import app.yubble.server.YubbleProperties;
import app.yubble.server.problem.RefusedException;
import app.yubble.server.problem.SecurityLog;
import app.yubble.server.problem.TooOftenException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotNull;
import java.time.Duration;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Who is signed in, and new accounts. Signing in and out themselves are filters (SecurityConfiguration). */
@RestController
class SessionController {
    private final Accounts accounts;
    private final YubbleProperties properties;
    private final Tries tries;
    private final SecurityLog log;

    SessionController(Accounts accounts, YubbleProperties properties, Tries tries, SecurityLog log) {
        this.log = log;
        this.accounts = accounts;
        this.tries = tries;
        this.properties = properties;
    }

    /**
     * @param name null when nobody is signed in
     * @param administrator whether the State page is there for them
     */
    record Session(@Nullable String name, boolean openAccounts, boolean demo, boolean administrator) {}

    record NewAccount(@NotBlank String name, @NotNull String password) {}

    @GetMapping("/api/session")
    Session session(@AuthenticationPrincipal @Nullable SignedIn who) {
        return new Session(
                who == null ? null : who.name(),
                properties.openAccounts(),
                properties.demo(),
                who != null && accounts.isAdministrator(who.id()));
    }

    @PostMapping("/api/accounts")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void create(@RequestBody @Valid NewAccount wanted, HttpServletRequest request) {
        if (!properties.openAccounts()) {
            throw new RefusedException("New accounts are switched off on this installation.");
        }
        Tries.Limit limit = new Tries.Limit("account", properties.accountsPerHour(), Duration.ofHours(1));
        if (tries.isOver(limit, request.getRemoteAddr())) {
            log.note(SecurityLog.Event.ACCOUNT_REFUSED, "too many from here");
            throw new TooOftenException("Too many new accounts from here. Wait an hour and try again.");
        }
        tries.count(limit, request.getRemoteAddr());
        accounts.create(wanted.name(), wanted.password());
        log.note(SecurityLog.Event.ACCOUNT_MADE, AccountName.shown(wanted.name()), "by signing up");
    }
}
