package app.yubble.server.problem;

import java.io.IOException;

/** The store for files does not answer, or not as it should; what was asked of it may go well later. */
public final class StoreAwayException extends IOException {
    private static final long serialVersionUID = 1L;

    public StoreAwayException(Throwable cause) {
        super("the store for files does not answer: " + cause.getMessage(), cause);
    }
}
