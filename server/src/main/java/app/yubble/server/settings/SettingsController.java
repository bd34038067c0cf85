package app.yubble.server.settings;

import app.yubble.core.subject.FaceFinder;
import app.yubble.server.account.Accounts;
import app.yubble.server.account.SignedIn;
import app.yubble.server.depth.Engines;
import app.yubble.vision.FaceNetworks;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import java.util.List;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;

/** The settings page. */
@RestController
class SettingsController {
    private final Accounts accounts;
    private final Engines engines;
    private final FaceFinder finder;

    SettingsController(Accounts accounts, Engines engines, FaceFinder finder) {
        this.finder = finder;
        this.accounts = accounts;
        this.engines = engines;
    }

    /**
     * @param licence of the weights; empty when there are none
     * @param problem why it cannot be used; empty when it can
     */
    record EngineView(String name, String about, String licence, String problem) {}

    /**
     * @param depthEngine what new shots are estimated with; {@code auto} is the first of {@code engines}
     * @param faces licence of the networks that find faces; empty when they are missing
     * @param learned false when the networks are missing and depth comes from the layout of the picture
     */
    record SettingsView(String depthEngine, boolean learned, String faces, List<EngineView> engines) {}

    record EngineWanted(@NotNull String name) {}

    @GetMapping("/api/settings")
    SettingsView settings(@AuthenticationPrincipal SignedIn who) {
        return new SettingsView(
                accounts.depthEngine(who.id()),
                engines.hasLearned(),
                finder == FaceFinder.NONE ? "" : FaceNetworks.LICENCE,
                engines.installed().stream()
                        .map(engine ->
                                new EngineView(engine.name(), engine.about(), engine.licence(), engine.problem()))
                        .toList());
    }

    @PutMapping("/api/settings/depth-engine")
    SettingsView useDepthEngine(@AuthenticationPrincipal SignedIn who, @RequestBody @Valid EngineWanted wanted) {
        engines.require(wanted.name());
        accounts.useDepthEngine(who.id(), wanted.name());
        return settings(who);
    }
}
