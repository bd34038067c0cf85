package app.yubble.server.problem;

import java.io.IOException;

/** A stored file is not what was stored. */
public final class DamagedFileException extends IOException {
    private static final long serialVersionUID = 1L;

    /** Its content is another. */
    public DamagedFileException(String hash) {
        super(words(hash, "is damaged"));
    }

    /** It is not there. */
    public DamagedFileException(String hash, Exception missing) {
        super(words(hash, "is missing"), missing);
    }

    private static String words(String hash, String what) {
        return "the stored file " + hash.substring(0, 12) + " " + what
                + ". If it is a photo or a clip, bringing the same in again mends it.";
    }
}
