package app.yubble.server.demo;

import app.yubble.server.YubbleProperties;
import app.yubble.server.account.Accounts;
import app.yubble.server.arrival.Arrivals;
import app.yubble.server.database.SecretFile;
import app.yubble.server.shoot.Shoots;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.SecureRandom;
import java.util.Optional;
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
    private static final String NAME = "demo";
    /** In the data folder; the start command prints what it holds. */
    private static final String PASSWORD_FILE = "demo-password";
    /** Without what looks alike. */
    private static final String LETTERS = "abcdefghjkmnpqrstuvwxyz23456789";
    /** Groups of as many letters, 78 bits in all. */
    private static final int GROUPS = 4;

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
        if (!properties.demo() || folder == null) {
            return;
        }
        Path file = properties.data().toAbsolutePath().resolve(PASSWORD_FILE);
        boolean known = SecretFile.isThere(file);
        String password = SecretFile.read(file, DemoLoader::password);
        Optional<UUID> there = accounts.find(NAME);
        if (there.isPresent()) {
            if (!known) {
                accounts.usePassword(there.get(), password);
            }
            return;
        }
        Manifest manifest = json.readValue(Files.readString(folder.resolve("manifest.json")), Manifest.class);
        UUID account = accounts.create(NAME, password);
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

    private static String password() {
        SecureRandom random = new SecureRandom();
        StringBuilder out = new StringBuilder();
        for (int i = 0; i < GROUPS * GROUPS; i++) {
            out.append(i > 0 && i % GROUPS == 0 ? "-" : "").append(LETTERS.charAt(random.nextInt(LETTERS.length())));
        }
        return out.toString();
    }
}
