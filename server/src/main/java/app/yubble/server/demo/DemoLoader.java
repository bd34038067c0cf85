package app.yubble.server.demo;

import app.yubble.server.YubbleProperties;
import app.yubble.server.account.Accounts;
import app.yubble.server.arrival.Arrivals;
import app.yubble.server.shoot.Shoots;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Component;
import tools.jackson.databind.json.JsonMapper;

/** Puts the demo account and the open day's photos in, once. */
@Component
class DemoLoader {
    /** The demo account's name and password; the start command prints them. */
    private static final String NAME = "demo";

    private static final String PASSWORD = "open day at the club";
    private static final Logger LOG = LoggerFactory.getLogger(DemoLoader.class);

    private final YubbleProperties properties;
    private final Accounts accounts;
    private final Shoots shoots;
    private final Arrivals arrivals;
    private final JsonMapper json;

    DemoLoader(YubbleProperties properties, Accounts accounts, Shoots shoots, Arrivals arrivals, JsonMapper json) {
        this.properties = properties;
        this.accounts = accounts;
        this.shoots = shoots;
        this.arrivals = arrivals;
        this.json = json;
    }

    /** One demo photo of the manifest; without a depth file its depth is the one stored in it. */
    @com.fasterxml.jackson.annotation.JsonIgnoreProperties(ignoreUnknown = true)
    record Scene(String photo, @Nullable String depth, String title) {}

    /** The manifest. */
    @com.fasterxml.jackson.annotation.JsonIgnoreProperties(ignoreUnknown = true)
    record Manifest(String shoot, java.util.List<Scene> scenes, java.util.@Nullable List<Clip> clips) {}

    /** One demo clip of the manifest, with its exact depth. */
    @com.fasterxml.jackson.annotation.JsonIgnoreProperties(ignoreUnknown = true)
    record Clip(String file, String depth, String title) {}

    @EventListener(ApplicationReadyEvent.class)
    void load() throws IOException {
        Path folder = properties.demoFolder();
        if (!properties.demo() || folder == null || accounts.find(NAME).isPresent()) {
            return;
        }
        Manifest manifest = json.readValue(Files.readString(folder.resolve("manifest.json")), Manifest.class);
        UUID account = accounts.create(NAME, PASSWORD);
        UUID shoot = shoots.create(account, manifest.shoot()).id();
        for (Scene scene : manifest.scenes()) {
            Path photo = folder.resolve(scene.photo());
            String name = photo.getFileName().toString();
            byte[] content = Files.readAllBytes(photo);
            if (scene.depth() == null) {
                arrivals.bringIn(account, shoot, name, content);
            } else {
                // Exact depth, as somebody would bring it in who has a depth file.
                Path depth = folder.resolve(scene.depth());
                arrivals.bringIn(
                        account, shoot, name, content, depth.getFileName().toString(), Files.readAllBytes(depth));
            }
        }
        for (Clip clip : manifest.clips() == null ? java.util.List.<Clip>of() : manifest.clips()) {
            arrivals.bringInClip(account, shoot, folder.resolve(clip.file()), folder.resolve(clip.depth()));
        }
        LOG.info("demo data is in");
    }
}
