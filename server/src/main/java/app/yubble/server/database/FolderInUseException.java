package app.yubble.server.database;

import java.nio.file.Path;

/** Another program has the data folder. */
public final class FolderInUseException extends RuntimeException {
    private static final long serialVersionUID = 1L;

    FolderInUseException(Path folder) {
        super(
                "The data in " + folder.getParent()
                        + " is used by another Yubble that is running. Stop that one, or start with --data and another folder.");
    }
}
