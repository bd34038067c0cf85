package app.yubble.server.problem;

/** The record changed since the caller read it, or is not in a state that allows the request. */
public final class ConflictException extends RuntimeException {
    private static final long serialVersionUID = 1L;

    public ConflictException(String message) {
        super(message);
    }
}
