package app.yubble.server.storage;

import app.yubble.server.problem.FullDiskException;
import app.yubble.server.problem.RefusedException;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;

/** Takes a large file in while it comes; nothing of it is held in memory. */
public final class Incoming {
    private static final int BUFFER = 1 << 16;

    private Incoming() {}

    /**
     * Writes a stream to a file.
     *
     * @param name of the file, for complaints
     * @param length as the sender tells it, negative when it is not told
     * @throws RefusedException as soon as it is known to be larger than {@code most} bytes
     */
    public static void take(InputStream content, String name, long length, long most, Path file) throws IOException {
        requireSize(name, length, most);
        try (OutputStream out = Files.newOutputStream(file)) {
            byte[] buffer = new byte[BUFFER];
            long bytes = 0;
            for (int n = content.read(buffer); n >= 0; n = content.read(buffer)) {
                bytes += n;
                requireSize(name, bytes, most);
                out.write(buffer, 0, n);
            }
        } catch (IOException fault) {
            throw FullDiskException.told(fault);
        }
    }

    private static void requireSize(String name, long bytes, long most) {
        if (bytes > most) {
            throw new RefusedException(name + " is larger than the " + (most >> 20) + " MB that a clip may have here.");
        }
    }
}
