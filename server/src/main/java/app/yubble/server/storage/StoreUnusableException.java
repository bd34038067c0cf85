package app.yubble.server.storage;

/** The store that the settings name cannot be used, and waiting would not help. */
final class StoreUnusableException extends RuntimeException {
    private static final long serialVersionUID = 1L;

    StoreUnusableException(String message, Throwable cause) {
        super(message, cause);
    }
}
