package app.yubble.server.storage;

import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;

/** How contents are named. */
final class Hashes {
    private Hashes() {}

    static MessageDigest sha256() {
        try {
            return MessageDigest.getInstance("SHA-256");
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException("every Java platform has SHA-256", e);
        }
    }
}
