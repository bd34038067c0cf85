package app.yubble.server.problem;

/** Something was asked for too often; the message says how long to wait. */
public final class TooOftenException extends RuntimeException {
    private static final long serialVersionUID = 1L;

    public TooOftenException(String message) {
        super(message);
    }
}
