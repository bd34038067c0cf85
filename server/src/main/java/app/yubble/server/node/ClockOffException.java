package app.yubble.server.node;

/** The clock of this node is too far off for it to work beside others. */
final class ClockOffException extends RuntimeException {
    private static final long serialVersionUID = 1L;

    ClockOffException(String message) {
        super(message);
    }
}
