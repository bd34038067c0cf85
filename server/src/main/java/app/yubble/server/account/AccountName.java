package app.yubble.server.account;

import app.yubble.server.problem.RefusedException;
import java.text.Normalizer;
import java.util.Locale;
import java.util.regex.Pattern;

/** What names are, and which of them are one name. */
final class AccountName {
    private static final int LONGEST = 80;
    /** Controls, invisible ones, halves of characters, and what no character has been given to. */
    private static final Pattern UNSEEN = Pattern.compile("[\\p{Cc}\\p{Cf}\\p{Cs}\\p{Co}\\p{Cn}]");

    private AccountName() {}

    /** The name as it is shown. */
    static String shown(String name) {
        String normal = Normalizer.normalize(name, Normalizer.Form.NFKC).strip();
        if (normal.isEmpty() || normal.length() > LONGEST) {
            throw new RefusedException("The name must have 1 to " + LONGEST + " characters.");
        }
        if (UNSEEN.matcher(normal).find()) {
            throw new RefusedException("The name has a character in it that cannot be seen.");
        }
        return normal;
    }

    /**
     * Two names are one when these are equal: upper and lower case are, and what looks alike by its nature (Unicode NFKC); letters
     * with and without an accent are not.
     */
    static String folded(String name) {
        String normal = Normalizer.normalize(name, Normalizer.Form.NFKC).strip();
        String folded = normal.toUpperCase(Locale.ROOT).toLowerCase(Locale.ROOT);
        return Normalizer.normalize(folded, Normalizer.Form.NFKC);
    }
}
