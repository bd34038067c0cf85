package app.yubble.cli;

/** An option with a value that cannot be used; the message names the option. */
final class WrongUseException extends RuntimeException {
    private static final long serialVersionUID = 1L;

    WrongUseException(String message) {
        super(message);
    }
}
