package app.yubble.media.clip;

/** The programs that read and write clips are missing, hang, or were stopped; trying again may help. */
public final class ClipToolException extends RuntimeException {
    private static final long serialVersionUID = 1;

    ClipToolException(String message) {
        super(message);
    }

    ClipToolException(String message, Throwable cause) {
        super(message, cause);
    }
}
