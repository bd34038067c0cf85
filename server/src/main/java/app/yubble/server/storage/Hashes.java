package app.yubble.server.storage;

import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;

/** How contents are named. */
final class Hashes {
    private Hashes() {}

    static boolean isHash(String name) {
        return name.matches("[0-9a-f]{64}");
    }

    static MessageDigest sha256() {
        try {
            return MessageDigest.getInstance("SHA-256");
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException("every Java platform has SHA-256", e);
        }
    }
}
