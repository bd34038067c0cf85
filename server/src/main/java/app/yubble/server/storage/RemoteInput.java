package app.yubble.server.storage;

import app.yubble.server.problem.StoreAwayException;
import java.io.IOException;
import java.io.InputStream;
import org.jspecify.annotations.Nullable;

/**
 * Reads a file from a store on the network: what is passed over is not sent, and a connection that breaks is begun again where it
 * broke.
 */
final class RemoteInput extends InputStream {
    private static final int MOST_TRIES = 4;
    /** Milliseconds before the first new try; twice as long before each other one. */
    private static final long WAIT = 200;

    private final Source source;
    private final long end;
    private long at;
    private @Nullable InputStream open;

    /** @param bytes of the whole file */
    RemoteInput(Source source, long bytes) {
        this.source = source;
        end = bytes;
    }

    /** The file from a byte on. */
    @FunctionalInterface
    interface Source {
        InputStream from(long position) throws IOException;
    }

    @Override
    public int read() throws IOException {
        byte[] one = new byte[1];
        return read(one, 0, 1) < 0 ? -1 : one[0] & 0xff;
    }

    @Override
    public int read(byte[] into, int from, int length) throws IOException {
        if (at >= end || length == 0) {
            return length == 0 ? 0 : -1;
        }
        for (int tries = 1; ; tries++) {
            try {
                InputStream in = open == null ? source.from(at) : open;
                open = in;
                int count = in.read(into, from, (int) Math.min(length, end - at));
                if (count < 0) {
                    throw new IOException("the store ended the file before its end");
                }
                at += count;
                return count;
            } catch (IOException broken) {
                close();
                if (tries == MOST_TRIES) {
                    throw broken instanceof StoreAwayException ? broken : new StoreAwayException(broken);
                }
                pause(WAIT << tries);
            }
        }
    }

    private static void pause(long millis) throws IOException {
        try {
            Thread.sleep(millis);
        } catch (InterruptedException stopped) {
            Thread.currentThread().interrupt();
            throw new IOException("interrupted", stopped);
        }
    }

    @Override
    public long skip(long count) throws IOException {
        long passed = Math.max(0, Math.min(count, end - at));
        if (passed > 0) {
            close();
            at += passed;
        }
        return passed;
    }

    @Override
    public int available() {
        return 0;
    }

    @Override
    public void close() {
        InputStream in = open;
        open = null;
        if (in instanceof software.amazon.awssdk.http.Abortable connection && at < end) {
            // Else the rest of the file would be read to its end.
            connection.abort();
        } else if (in != null) {
            try {
                in.close();
            } catch (IOException broken) {
                // It was of no use any more.
                return;
            }
        }
    }
}
