package app.yubble.server.leaving;

import app.yubble.server.account.Accounts;
import app.yubble.server.account.PasswordCheck;
import app.yubble.server.account.Sessions;
import app.yubble.server.account.SignedIn;
import app.yubble.server.problem.SecurityLog;
import app.yubble.server.storage.Sweep;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import java.io.IOException;
import java.util.Set;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** The end of one's own account. */
@RestController
class LeavingController {
    private static final Logger LOG = LoggerFactory.getLogger(LeavingController.class);

    private final Accounts accounts;
    private final PasswordCheck passwords;
    private final Sessions sessions;
    private final Sweep sweep;
    private final Everything everything;
    private final SecurityLog log;

    LeavingController(
            Accounts accounts,
            PasswordCheck passwords,
            Sessions sessions,
            Sweep sweep,
            Everything everything,
            SecurityLog log) {
        this.log = log;
        this.accounts = accounts;
        this.passwords = passwords;
        this.sessions = sessions;
        this.sweep = sweep;
        this.everything = everything;
    }

    record Leaving(@NotNull String password) {}

    /** Photos, depth, recipes and deliveries of all shoots as one zip, sent while it is put together. */
    @GetMapping("/api/account/everything")
    void everything(@AuthenticationPrincipal SignedIn who, HttpServletResponse response) throws IOException {
        log.note(SecurityLog.Event.EVERYTHING_TAKEN, "as a zip");
        response.setContentType("application/zip");
        response.setHeader(HttpHeaders.CONTENT_DISPOSITION, "attachment; filename=\"yubble.zip\"");
        everything.write(who.id(), response.getOutputStream());
    }

    /** Removes the account, all that is in it, and the files that only it has; nothing of it can be had again. */
    @PostMapping("/api/account/end")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void end(@AuthenticationPrincipal SignedIn who, @RequestBody @Valid Leaving leaving, HttpServletRequest request)
            throws IOException {
        passwords.require(who, leaving.password(), request);
        Set<String> files = sweep.of(who.id());
        accounts.delete(who.id());
        sessions.endAll(who.name());
        log.note(SecurityLog.Event.ACCOUNT_ENDED, "on request");
        LOG.info("an account has ended; {} of its files are removed", sweep.removeNow(files));
    }
}
