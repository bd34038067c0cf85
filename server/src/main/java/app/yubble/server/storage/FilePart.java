package app.yubble.server.storage;

import java.io.IOException;
import java.io.InputStream;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;

/** Some of a file, without the rest. */
final class FilePart extends InputStream {
    private final FileChannel file;
    private final long end;
    private long at;

    FilePart(FileChannel file, long from, long length) {
        this.file = file;
        at = from;
        end = from + length;
    }

    @Override
    public int read() throws IOException {
        byte[] one = new byte[1];
        return read(one, 0, 1) < 0 ? -1 : one[0] & 0xff;
    }

    @Override
    public int read(byte[] into, int from, int length) throws IOException {
        int wanted = (int) Math.min(length, end - at);
        if (wanted <= 0) {
            return length == 0 ? 0 : -1;
        }
        int count = file.read(ByteBuffer.wrap(into, from, wanted), at);
        at += Math.max(0, count);
        return count;
    }

    @Override
    public void close() throws IOException {
        file.close();
    }
}
