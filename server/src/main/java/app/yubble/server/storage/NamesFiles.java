package app.yubble.server.storage;

import java.util.Set;
import java.util.UUID;
import org.jspecify.annotations.Nullable;

/** Whoever names stored files elsewhere than in a column of the database whose name ends with {@code _hash}. */
public interface NamesFiles {
    /**
     * Their hashes; a fault ends the sweep that asks.
     *
     * @param account whose they are; null for everybody's
     */
    Set<String> named(@Nullable UUID account);

    /** What they are. */
    String what();
}
