package app.yubble.core.refocus;

import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.HexFormat;

/** Names the result of a stage: a hash of the stage before it, the stage's own name and its parameters. */
public record StageKey(String hash) {
    /** The first key of a line, from whatever identifies the input, such as the hash of a file. */
    public static StageKey root(String identity) {
        return new StageKey(identity);
    }

    /** The key of the next stage; parameters are told apart by their {@code toString}. */
    public StageKey then(String stage, Object... parameters) {
        try {
            MessageDigest digest = MessageDigest.getInstance("SHA-256");
            digest.update(hash.getBytes(StandardCharsets.UTF_8));
            digest.update((byte) 0);
            digest.update(stage.getBytes(StandardCharsets.UTF_8));
            for (Object parameter : parameters) {
                digest.update((byte) 0);
                digest.update(parameter.toString().getBytes(StandardCharsets.UTF_8));
            }
            return new StageKey(HexFormat.of().formatHex(digest.digest()));
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException("every Java platform has SHA-256", e);
        }
    }
}
