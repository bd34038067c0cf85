package app.yubble.media.picture;

import java.util.Locale;

/**
 * How files of a format are known.
 *
 * @param mediaType as HTTP says it
 * @param ending of their names, without the point
 */
public record FileType(String mediaType, String ending) {
    /** The ending of a name in small letters, without the point; all of it when it has none. */
    public static String endingOf(String name) {
        return name.substring(name.lastIndexOf('.') + 1).toLowerCase(Locale.ROOT);
    }
}
