package app.yubble.media.picture;

import java.io.ByteArrayOutputStream;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.util.Set;

/** The chunks of a PNG (W3C, Portable Network Graphics, third edition). */
final class PngChunks {
    private static final int SIGNATURE = 8;
    /** Length, type and checksum. */
    private static final int AROUND = 12;
    /** What pixels, colours and the way up depend on. */
    private static final Set<String> WANTED =
            Set.of("IHDR", "PLTE", "IDAT", "IEND", "tRNS", "iCCP", "sRGB", "gAMA", "cHRM", "sBIT", "eXIf");

    private PngChunks() {}

    /**
     * The file without texts and whatever else is not wanted: a library that inflates a text does so without a limit, and 200 kB
     * become 200 MB. What follows a chunk that is cut off is left as it is, for the reader to complain of.
     */
    static byte[] wanted(byte[] file) {
        ByteBuffer in = ByteBuffer.wrap(file);
        ByteArrayOutputStream out = new ByteArrayOutputStream(file.length);
        out.write(file, 0, Math.min(SIGNATURE, file.length));
        int at = SIGNATURE;
        while (at + AROUND <= file.length) {
            long end = (long) at + AROUND + (in.getInt(at) & 0xffffffffL);
            boolean isWanted = WANTED.contains(new String(file, at + 4, 4, StandardCharsets.US_ASCII));
            if (end > file.length) {
                if (isWanted) {
                    out.write(file, at, file.length - at);
                }
                break;
            }
            if (isWanted) {
                out.write(file, at, (int) end - at);
            }
            at = (int) end;
        }
        return out.toByteArray();
    }
}
