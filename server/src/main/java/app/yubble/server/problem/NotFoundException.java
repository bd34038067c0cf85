package app.yubble.server.problem;

/** Something that is not there, or not there for this account: both look the same. */
public final class NotFoundException extends RuntimeException {
    private static final long serialVersionUID = 1L;

    public NotFoundException(String what) {
        super("There is no such " + what + ".");
    }
}
