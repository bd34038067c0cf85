package app.yubble.cli;

import org.jspecify.annotations.Nullable;

/** An input file that cannot be read; the message names the file and the reason. */
final class UnreadableInputException extends RuntimeException {
    private static final long serialVersionUID = 1L;

    UnreadableInputException(String message, @Nullable Throwable cause) {
        super(message, cause);
    }
}
