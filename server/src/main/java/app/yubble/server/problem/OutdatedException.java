package app.yubble.server.problem;

/** A request that builds on something that is not known here any more; the sender starts from what it has itself. */
public final class OutdatedException extends RuntimeException {
    private static final long serialVersionUID = 1L;

    public OutdatedException(String message) {
        super(message);
    }
}
