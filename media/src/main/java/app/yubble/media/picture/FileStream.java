package app.yubble.media.picture;

import javax.imageio.stream.ImageInputStreamImpl;

/**
 * A file in memory for the platform's readers, without another copy of it.
 *
 * <p>Some readers take the end of a file for zeros and go on for as long as the file says it goes: 69 bytes kept one busy for
 * a minute. Who reads beyond the end again and again is stopped.
 */
final class FileStream extends ImageInputStreamImpl {
    /** Readers look ahead a little. */
    private static final int MOST_BEYOND = 2000;

    private final byte[] file;
    private int beyond;

    /** @param file is not copied */
    FileStream(byte[] file) {
        this.file = file;
    }

    @Override
    public int read() {
        bitOffset = 0;
        if (streamPos >= file.length) {
            return ended();
        }
        return file[(int) streamPos++] & 0xff;
    }

    @Override
    public int read(byte[] into, int at, int count) {
        bitOffset = 0;
        if (count == 0) {
            return 0;
        }
        if (streamPos >= file.length) {
            return ended();
        }
        int read = (int) Math.min(count, file.length - streamPos);
        System.arraycopy(file, (int) streamPos, into, at, read);
        streamPos += read;
        return read;
    }

    private int ended() {
        if (++beyond > MOST_BEYOND) {
            throw new UnreadablePictureException("the file is cut off or damaged (it ends too early)");
        }
        return -1;
    }

    @Override
    public long length() {
        return file.length;
    }
}
