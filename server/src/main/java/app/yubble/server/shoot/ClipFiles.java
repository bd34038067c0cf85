package app.yubble.server.shoot;

import app.yubble.core.depth.DepthEstimate;
import app.yubble.core.raster.Picture;
import app.yubble.media.clip.ClipFile;
import app.yubble.media.clip.ClipScan;
import app.yubble.media.clip.ClipSheet;
import app.yubble.media.clip.DepthPack;
import app.yubble.server.problem.ConflictException;
import app.yubble.server.problem.DamagedFileException;
import app.yubble.server.storage.FileStore;
import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.HashSet;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.stream.IntStream;
import org.springframework.stereotype.Component;
import tools.jackson.databind.json.JsonMapper;

/** What was stored of clips, read back: their sheets, files and depth. */
@Component
public class ClipFiles {
    /** Sheets and indices; the largest has 18 000 numbers. */
    private static final int MOST_SMALL = 100;
    /** Packs of depth, 16 MB each in memory. */
    private static final int MOST_PACKS = 12;

    private final FileStore files;
    private final JsonMapper json;
    private final FrameReaders readers;

    private final Cache<String, ClipSheet> sheets =
            Caffeine.newBuilder().maximumSize(MOST_SMALL).build();
    private final Cache<String, DepthIndex> indices =
            Caffeine.newBuilder().maximumSize(MOST_SMALL).build();
    private final Cache<String, Map<Integer, DepthEstimate>> packs =
            Caffeine.newBuilder().maximumSize(MOST_PACKS).softValues().build();

    ClipFiles(FileStore files, JsonMapper json, FrameReaders readers) {
        this.files = files;
        this.json = json;
        this.readers = readers;
    }

    /** @throws ConflictException while the clip is still being gone through */
    public ClipSheet sheet(Shot shot) {
        String hash = shot.sheetHash();
        if (hash == null) {
            throw new ConflictException("This clip is still being read.");
        }
        return Objects.requireNonNull(sheets.get(hash, wanted -> ClipSheet.of(bytes(wanted))));
    }

    /** The file as it came in. */
    public ClipFile original(Shot shot) {
        return new ClipFile(files.local(shot.contentHash()), sheet(shot));
    }

    /** The small file. */
    public ClipFile small(Shot shot) {
        ClipSheet sheet = sheet(shot);
        return new ClipFile(
                files.local(Objects.requireNonNull(shot.proxyHash())),
                sheet.ofProxy(ClipScan.proxySize(sheet.info().size())));
    }

    /** A frame of the small file; soon, when it lies shortly behind the one before. */
    Picture smallFrame(Shot shot, int frame) {
        return readers.frame(small(shot), frame);
    }

    /** Whether all of these frames have depth of their own. */
    public boolean hasDepth(String index, int from, int end) {
        return IntStream.rangeClosed(from / DepthPack.FRAMES, (end - 1) / DepthPack.FRAMES)
                .allMatch(index(index).settled()::containsKey);
    }

    /** Hashes of all packs of an index; none when it is damaged, so that nobody can use them any more. */
    Set<String> packsOf(String index) {
        try {
            DepthIndex read = json.readValue(files.bytes(index), DepthIndex.class);
            Set<String> out = new HashSet<>(read.settled().values());
            out.addAll(read.first().values());
            return out;
        } catch (DamagedFileException damaged) {
            return Set.of();
        } catch (IOException fault) {
            throw new UncheckedIOException("A stored file cannot be read: " + fault.getMessage(), fault);
        }
    }

    DepthIndex index(String hash) {
        return Objects.requireNonNull(indices.get(hash, wanted -> json.readValue(bytes(wanted), DepthIndex.class)));
    }

    String put(DepthIndex index) {
        return put(json.writeValueAsBytes(index));
    }

    String put(byte[] content) {
        try {
            return files.put(new ByteArrayInputStream(content)).hash();
        } catch (IOException fault) {
            throw new UncheckedIOException("depth could not be stored", fault);
        }
    }

    Map<Integer, DepthEstimate> pack(String hash) {
        return Objects.requireNonNull(packs.get(hash, wanted -> DepthPack.read(bytes(wanted))));
    }

    private byte[] bytes(String hash) {
        try {
            return files.bytes(hash);
        } catch (IOException fault) {
            throw new UncheckedIOException("A stored file cannot be read: " + fault.getMessage(), fault);
        }
    }
}
