package app.yubble.media.picture;

import java.util.Arrays;
import javax.imageio.stream.ImageInputStreamImpl;

/**
 * A file in memory for the platform's readers.
 *
 * <p>Who reads beyond the end again and again is stopped: 69 bytes kept a reader busy for a minute that takes the end of a file
 * for zeros and goes on for as long as the file says it goes.
 */
final class FileStream extends ImageInputStreamImpl {
    /** Readers look ahead a little. */
    private static final int MOST_BEYOND = 2000;

    /** Bytes. */
    private static final int AHEAD = 64;

    private final byte[] file;
    private int beyond;

    private FileStream(byte[] file) {
        this.file = file;
    }

    /** @throws UnreadablePictureException when it is empty, or says itself that more of it should be there */
    static FileStream of(byte[] file) {
        if (file.length == 0) {
            throw new UnreadablePictureException("the file is empty");
        }
        String format = PictureReader.formatOf(file).orElse("");
        if (format.equals("WebP") && Blocks.riffLength(file) > file.length) {
            throw new UnreadablePictureException(
                    "the file is cut off: " + file.length + " bytes of " + Blocks.riffLength(file) + " are there");
        }
        return new FileStream(plain(file, format));
    }

    /** Readers would convert a picture with a profile to sRGB; without it they return the file's own values. */
    private static byte[] plain(byte[] file, String format) {
        return switch (format) {
            case "JPEG" -> Blocks.jpegComponents(file) <= 3 ? Blocks.withoutJpegProfile(file) : file;
            case "WebP" -> endingInZeros(Blocks.withoutWebpProfile(file));
            case "PNG" -> PngChunks.wanted(file);
            default -> file;
        };
    }

    /** WebP's reader fills its buffer ahead, and tries again for every pixel when it cannot. */
    private static byte[] endingInZeros(byte[] file) {
        return Arrays.copyOf(file, file.length + AHEAD);
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
