package app.yubble.server.problem;

/** A request that is understood but cannot be carried out; the message says what was found and what is allowed. */
public final class RefusedException extends RuntimeException {
    private static final long serialVersionUID = 1L;

    public RefusedException(String message) {
        super(message);
    }
}
