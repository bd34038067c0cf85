package app.yubble.cli;

import org.jspecify.annotations.Nullable;

/** An option with a value that cannot be used; the message names the option. */
final class WrongUseException extends RuntimeException {
    private static final long serialVersionUID = 1L;

    WrongUseException(@Nullable String message) {
        super(message);
    }
}
