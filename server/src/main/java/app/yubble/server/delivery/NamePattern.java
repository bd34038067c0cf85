package app.yubble.server.delivery;

import app.yubble.server.problem.RefusedException;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** How deliveries are named: words in braces stand for what differs from one to the next. */
record NamePattern(String text) {
    static final NamePattern USUAL = new NamePattern("{photo} - {version}");

    private static final Pattern WORD = Pattern.compile("\\{([^{}]*)\\}");
    /** Characters of a name without its ending, which a version's name may lengthen. */
    private static final int LONGEST = 200;

    /**
     * What the words stand for.
     *
     * @param number from 1, in the order of the batch
     * @param count of the batch, which says how many digits numbers have
     */
    record Words(String photo, String version, String shoot, int number, int count) {}

    /** A file name without path and ending; never empty. */
    String name(Words words) {
        int dot = words.photo().lastIndexOf('.');
        int digits = Math.max(2, String.valueOf(words.count()).length());
        Map<String, String> known = Map.of(
                "photo", dot > 0 ? words.photo().substring(0, dot) : words.photo(),
                "version", words.version(),
                "shoot", words.shoot(),
                "number", "%0" + digits + "d",
                "date", LocalDate.now(ZoneOffset.UTC).toString());
        Matcher matcher = WORD.matcher(text);
        StringBuilder out = new StringBuilder();
        while (matcher.find()) {
            String value = known.get(matcher.group(1));
            if (value == null) {
                throw new RefusedException("There is no word {" + matcher.group(1)
                        + "}; there are {photo}, {version}, {shoot}, {number} and {date}.");
            }
            String stands = matcher.group(1).equals("number") ? value.formatted(words.number()) : value;
            matcher.appendReplacement(out, Matcher.quoteReplacement(stands));
        }
        matcher.appendTail(out);
        String safe = out.toString()
                .replaceAll("[^\\p{L}\\p{N} _.,()+&'!-]", "")
                .replaceAll("\\s+", " ")
                .replaceAll("( - )+$|^( - )+", "")
                .strip()
                .replaceAll("^\\.+|[. -]+$", "");
        if (safe.isEmpty()) {
            throw new RefusedException("The pattern \u201c" + text + "\u201d leaves a name empty.");
        }
        return safe.length() > LONGEST ? safe.substring(0, LONGEST).strip() : safe;
    }
}
