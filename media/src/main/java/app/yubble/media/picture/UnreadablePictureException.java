package app.yubble.media.picture;

/** A file that cannot be used; the message says why, in words for the person who brought it. */
public final class UnreadablePictureException extends RuntimeException {
    private static final long serialVersionUID = 1L;

    public UnreadablePictureException(String reason) {
        super(reason);
    }

    public UnreadablePictureException(String reason, Throwable cause) {
        super(reason, cause);
    }
}
