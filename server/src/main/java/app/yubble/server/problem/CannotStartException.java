package app.yubble.server.problem;

/** This node cannot start as things are, and waiting would not help. */
public final class CannotStartException extends RuntimeException {
    private static final long serialVersionUID = 1L;

    private final String advice;

    /** @param advice what whoever runs it can do */
    public CannotStartException(String message, String advice) {
        super(message);
        this.advice = advice;
    }

    public CannotStartException(String message, String advice, Throwable cause) {
        super(message, cause);
        this.advice = advice;
    }

    String advice() {
        return advice;
    }
}
