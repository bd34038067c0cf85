package app.yubble.core.refocus;

import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.ArrayList;
import java.util.HexFormat;
import java.util.List;

/** Names the result of a stage: a hash of the keys of the stages that it takes, its own name and what it reads. */
public record StageKey(String hash) {
    /** From values that are told apart by their {@code toString}. */
    static StageKey of(String stage, List<StageKey> takes, List<?> reads) {
        MessageDigest digest = begun(stage, takes);
        reads.forEach(each -> add(digest, each.toString()));
        return new StageKey(HexFormat.of().formatHex(digest.digest()));
    }

    /** The keys for {@code first} alone, for it and the first of {@code more}, and so on to all of them. */
    static List<StageKey> ofEach(String stage, StageKey takes, Object first, List<?> more) {
        try {
            MessageDigest digest = begun(stage, List.of(takes));
            List<StageKey> out = new ArrayList<>(more.size() + 1);
            for (int i = 0; i <= more.size(); i++) {
                add(digest, (i == 0 ? first : more.get(i - 1)).toString());
                out.add(new StageKey(HexFormat.of().formatHex(((MessageDigest) digest.clone()).digest())));
            }
            return out;
        } catch (CloneNotSupportedException e) {
            throw new IllegalStateException("the SHA-256 of every Java platform can be copied", e);
        }
    }

    private static MessageDigest begun(String stage, List<StageKey> takes) {
        try {
            MessageDigest digest = MessageDigest.getInstance("SHA-256");
            add(digest, stage);
            takes.forEach(each -> add(digest, each.hash));
            return digest;
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException("every Java platform has SHA-256", e);
        }
    }

    /** The key of what is made of this alone. */
    StageKey then(String stage, Object... reads) {
        return of(stage, List.of(this), List.of(reads));
    }

    private static void add(MessageDigest digest, String text) {
        digest.update(text.getBytes(StandardCharsets.UTF_8));
        digest.update((byte) 0);
    }
}
