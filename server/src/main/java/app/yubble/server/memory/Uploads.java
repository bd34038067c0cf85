package app.yubble.server.memory;

import app.yubble.media.picture.PictureFile;
import java.io.EOFException;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.util.function.BiFunction;
import org.springframework.stereotype.Component;
import org.springframework.web.multipart.MultipartFile;

/** Files that came in with a form. They lie on the disk until it is their turn to be read. */
@Component
public class Uploads {
    /** From so many bytes the kind of a file is known. */
    private static final int HEAD = 4096;
    /** A file is held once as it came and once as a reader takes it in. */
    private static final int COPIES = 2;
    /** Times its length that a file takes whose pixels are stored with little compression on the way. */
    private static final int CONVERTED = 16;

    private static final int PIECE = 1 << 18;

    private final MemoryGate gate;

    Uploads(MemoryGate gate) {
        this.gate = gate;
    }

    /**
     * Reads a file when there is room for it.
     *
     * @param unnamed what it is called when the sender did not say
     * @param use is given its name and what it holds
     */
    public <T> T read(MultipartFile file, String unnamed, BiFunction<String, byte[], T> use) {
        String name = file.getOriginalFilename();
        return gate.holding(held(file), () -> use.apply(name == null ? unnamed : name, bytes(file)));
    }

    /** A file that other programs convert is held as what they make of it, too. */
    private static long held(MultipartFile file) {
        byte[] head = new byte[HEAD];
        try (InputStream in = file.getInputStream()) {
            in.readNBytes(head, 0, HEAD);
        } catch (IOException e) {
            throw new UncheckedIOException("the file could not be read", e);
        }
        PictureFile kind = PictureFile.of(head);
        return (kind.isHeif() || kind.isRaw() ? CONVERTED : COPIES) * file.getSize();
    }

    private static byte[] bytes(MultipartFile file) {
        byte[] out = new byte[Math.toIntExact(file.getSize())];
        try (InputStream in = file.getInputStream()) {
            // In pieces: a channel reads through memory outside the heap as large as what is asked for, and keeps it.
            for (int at = 0; at < out.length; ) {
                int count = in.read(out, at, Math.min(PIECE, out.length - at));
                if (count < 0) {
                    throw new EOFException("the file ends early");
                }
                at += count;
            }
            return out;
        } catch (IOException e) {
            throw new UncheckedIOException("the file could not be read", e);
        }
    }
}
