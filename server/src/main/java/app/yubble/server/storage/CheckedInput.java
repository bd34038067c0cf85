package app.yubble.server.storage;

import app.yubble.server.problem.DamagedFileException;
import java.io.FilterInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.security.MessageDigest;
import java.util.HexFormat;
import org.jspecify.annotations.Nullable;

/** Reads a stored file and complains at its end when it is not what its hash says. A part of a file is not checked. */
final class CheckedInput extends FilterInputStream {
    private final String hash;
    /** Null once some of the file was passed over, and when it was checked. */
    private @Nullable MessageDigest digest = Hashes.sha256();

    CheckedInput(InputStream file, String hash) {
        super(file);
        this.hash = hash;
    }

    @Override
    public int read() throws IOException {
        byte[] one = new byte[1];
        return read(one, 0, 1) < 0 ? -1 : one[0] & 0xff;
    }

    @Override
    public int read(byte[] into, int from, int length) throws IOException {
        int count = super.read(into, from, length);
        MessageDigest own = digest;
        if (own != null && count > 0) {
            own.update(into, from, count);
        } else if (own != null && count < 0) {
            digest = null;
            if (!HexFormat.of().formatHex(own.digest()).equals(hash)) {
                throw new DamagedFileException(hash);
            }
        }
        return count;
    }

    @Override
    public long skip(long count) throws IOException {
        if (count > 0) {
            digest = null;
        }
        return super.skip(count);
    }

    @Override
    public boolean markSupported() {
        return false;
    }
}
