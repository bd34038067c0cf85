package app.yubble.server.problem;

import java.io.IOException;
import org.jspecify.annotations.Nullable;

/** There is no room for another file: what is left is kept for the database, so that work in hand can be saved. */
public final class FullDiskException extends IOException {
    private static final long serialVersionUID = 1L;

    public FullDiskException(@Nullable IOException cause) {
        super("there is no room left where files are stored. Nothing is lost; it goes on as soon as there is", cause);
    }

    /** The same fault, told as what it is when the disk is full. */
    public static IOException told(IOException fault) {
        String message = fault.getMessage();
        // The words of the C library, which Java hands on.
        return message != null && message.contains("No space left") ? new FullDiskException(fault) : fault;
    }
}
