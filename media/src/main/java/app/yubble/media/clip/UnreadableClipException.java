package app.yubble.media.clip;

/** A file that is no clip, or one that cannot be worked with; the message says why. */
public final class UnreadableClipException extends RuntimeException {
    private static final long serialVersionUID = 1;

    public UnreadableClipException(String message) {
        super(message);
    }

    public UnreadableClipException(String message, Throwable cause) {
        super(message, cause);
    }
}
