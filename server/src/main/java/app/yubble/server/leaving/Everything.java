package app.yubble.server.leaving;

import app.yubble.server.delivery.Deliveries;
import app.yubble.server.editing.RecipeFiles;
import app.yubble.server.problem.DamagedFileException;
import app.yubble.server.shoot.DepthMap;
import app.yubble.server.shoot.DepthMaps;
import app.yubble.server.shoot.Shoots;
import app.yubble.server.shoot.Shot;
import app.yubble.server.shoot.Shots;
import app.yubble.server.storage.FileStore;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.UUID;
import java.util.zip.Deflater;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.springframework.stereotype.Component;

/**
 * All of an account as one zip: a folder for each shoot with its photos and clips as they came in, a recipe file for each version, the depth
 * of photos; and what has been delivered.
 */
@Component
class Everything {
    private final Shoots shoots;
    private final Shots shots;
    private final DepthMaps depths;
    private final RecipeFiles recipes;
    private final Deliveries deliveries;
    private final FileStore files;

    Everything(
            Shoots shoots, Shots shots, DepthMaps depths, RecipeFiles recipes, Deliveries deliveries, FileStore files) {
        this.shoots = shoots;
        this.shots = shots;
        this.depths = depths;
        this.recipes = recipes;
        this.deliveries = deliveries;
        this.files = files;
    }

    void write(UUID account, OutputStream out) throws IOException {
        try (ZipOutputStream zip = new ZipOutputStream(out, StandardCharsets.UTF_8)) {
            // Nearly all of it is packed already.
            zip.setLevel(Deflater.NO_COMPRESSION);
            Pack pack = new Pack(zip);
            Map<UUID, String> names = shoots.names(account);
            for (Shot shot : shots.all(account)) {
                add(shot, account, names.getOrDefault(shot.shootId(), "Shoot"), pack);
            }
            for (Deliveries.Done each : deliveries.done(account)) {
                pack.stored("Deliveries/" + plain(each.fileName()), each.contentHash());
            }
            pack.finish();
        }
    }

    private void add(Shot shot, UUID account, String shoot, Pack pack) throws IOException {
        String folder = plain(shoot) + "/";
        String stem = plain(shot.name()).replaceAll("\\.[^.]*$", "");
        pack.stored(folder + plain(shot.name()), shot.contentHash());
        if (!shot.isClip()) {
            for (DepthMap map : depths.of(shot.id())) {
                String source = map.source().name().toLowerCase(Locale.ROOT);
                pack.stored(folder + stem + " - depth " + source + ".png", map.contentHash());
            }
        }
        for (RecipeFiles.Written each : recipes.of(shot, account, pack.missing)) {
            pack.text(folder + stem + " - " + plain(each.version()) + ".json", each.json());
        }
    }

    /** A name that is one file's anywhere. */
    private static String plain(String name) {
        String out = name.replaceAll("[\\\\/:*?\"<>|\\p{Cntrl}]", "_").strip();
        return out.isEmpty() || out.matches("\\.+") ? "_" : out;
    }

    /** The zip, with each name once. */
    private final class Pack {
        private final ZipOutputStream zip;
        private final Set<String> taken = new HashSet<>();
        private final List<String> missing = new ArrayList<>();

        Pack(ZipOutputStream zip) {
            this.zip = zip;
        }

        void stored(String name, String hash) throws IOException {
            try (InputStream in = files.open(hash)) {
                zip.putNextEntry(new ZipEntry(free(name)));
                in.transferTo(zip);
            } catch (DamagedFileException damaged) {
                missing.add(name);
            }
            zip.closeEntry();
        }

        void text(String name, String content) throws IOException {
            zip.putNextEntry(new ZipEntry(free(name)));
            zip.write(content.getBytes(StandardCharsets.UTF_8));
            zip.closeEntry();
        }

        void finish() throws IOException {
            if (!missing.isEmpty()) {
                text("damaged.txt", "These were damaged in the store:\n" + String.join("\n", missing) + "\n");
            }
        }

        private String free(String name) {
            int dot = name.lastIndexOf('.');
            int end = dot > name.lastIndexOf('/') ? dot : name.length();
            String out = name;
            for (int i = 2; !taken.add(out.toLowerCase(Locale.ROOT)); i++) {
                out = name.substring(0, end) + " (" + i + ")" + name.substring(end);
            }
            return out;
        }
    }
}
