package app.yubble.server.arrival;

import app.yubble.media.clip.ClipInfo;
import app.yubble.media.clip.ClipProbe;
import app.yubble.media.clip.UnreadableClipException;
import app.yubble.server.YubbleProperties;
import app.yubble.server.account.Accounts;
import app.yubble.server.account.Allowance;
import app.yubble.server.depth.DepthJob;
import app.yubble.server.problem.RefusedException;
import app.yubble.server.shoot.DepthMaps;
import app.yubble.server.shoot.Shot;
import app.yubble.server.shoot.Shots;
import app.yubble.server.storage.FileStore;
import app.yubble.server.storage.Incoming;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.UUID;
import java.util.function.Consumer;
import org.springframework.stereotype.Service;

/** Takes photos and clips in. */
@Service
public class Arrivals {
    private final Shots shots;
    private final DepthMaps maps;
    private final DepthJob depth;
    private final Accounts accounts;
    private final YubbleProperties properties;
    private final FileStore files;
    private final ClipReadingJob reading;
    private final Allowance allowance;

    Arrivals(
            Shots shots,
            DepthMaps maps,
            DepthJob depth,
            Accounts accounts,
            YubbleProperties properties,
            FileStore files,
            ClipReadingJob reading,
            Allowance allowance) {
        this.allowance = allowance;
        this.files = files;
        this.reading = reading;
        this.shots = shots;
        this.maps = maps;
        this.depth = depth;
        this.accounts = accounts;
        this.properties = properties;
    }

    /** Decodes and stores a photo, so that a file that cannot be read is refused at once, and begins with its depth. */
    public Shot bringIn(UUID account, UUID shoot, String name, byte[] photo) {
        return bringIn(account, shoot, name, photo, shot -> {});
    }

    /** A retouched file takes the place of a photo's. */
    public Shot replace(UUID account, UUID shot, String name, byte[] photo) {
        return shots.replace(shot, account, name, photo);
    }

    /** The same with a depth map from a file, which is there before the shot gets its first version. */
    public Shot bringIn(UUID account, UUID shoot, String name, byte[] photo, String depthName, byte[] map) {
        return bringIn(account, shoot, name, photo, shot -> maps.bringIn(shot, depthName, map));
    }

    /**
     * Stores a clip while it comes in and begins to read it; what is no clip is refused, and nothing is kept of it.
     *
     * @param length as the sender tells it, negative when it is not told
     */
    public Shot bringInClip(UUID account, UUID shoot, String fileName, InputStream content, long length)
            throws IOException {
        shots.requireShoot(account, shoot);
        allowance.requireShot(account, length);
        allowance.requireWork(account, 1);
        String name = Shots.plainName(fileName);
        Path incoming = files.incoming();
        try {
            Incoming.take(content, name, length, properties.mostClipBytes(), incoming);
            ClipInfo info = probed(name, incoming);
            Shot shot = shots.bringInClip(account, shoot, name, files.keep(incoming), info);
            reading.enqueue(shot.id(), null);
            return shot;
        } finally {
            Files.deleteIfExists(incoming);
        }
    }

    /** The same for a clip whose depth is there as a file: both lie on this machine, the depth comes first. */
    public Shot bringInClip(UUID account, UUID shoot, Path clip, Path depth) throws IOException {
        String name = Shots.plainName(clip.getFileName().toString());
        Path incoming = files.incoming();
        try (InputStream maps = Files.newInputStream(depth)) {
            Files.copy(clip, incoming, StandardCopyOption.REPLACE_EXISTING);
            ClipInfo info = probed(name, incoming);
            Shot shot = shots.bringInClip(account, shoot, name, files.keep(incoming), info);
            reading.enqueue(
                    shot.id(),
                    new ClipReadingJob.DepthFile(
                            depth.getFileName().toString(), files.put(maps).hash()));
            return shot;
        } finally {
            Files.deleteIfExists(incoming);
        }
    }

    private ClipInfo probed(String name, Path file) {
        ClipInfo info;
        try {
            info = ClipProbe.probe(file);
        } catch (UnreadableClipException fault) {
            throw new RefusedException(name + ": " + fault.getMessage() + ".");
        }
        if (info.micros() > properties.mostClipSeconds() * 1_000_000L) {
            throw new RefusedException(name + " is " + info.micros() / 1_000_000 + " seconds long; a clip may have "
                    + properties.mostClipSeconds() + " here.");
        }
        if (info.size().pixels() > properties.mostClipPixels()) {
            throw new RefusedException(name + " has pictures of " + info.size() + " pixels; a clip may have "
                    + properties.mostClipPixels() / 1_000_000 + " megapixels here.");
        }
        return info;
    }

    private Shot bringIn(UUID account, UUID shoot, String name, byte[] photo, Consumer<Shot> before) {
        Shot shot = shots.bringIn(account, shoot, name, photo);
        before.accept(shot);
        depth.enqueue(shot.id(), accounts.depthEngine(account), properties.firstDepth());
        return shots.byId(shot.id());
    }
}
