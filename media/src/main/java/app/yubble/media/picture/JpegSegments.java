package app.yubble.media.picture;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;

/** The segments of a JPEG before its pixels (ITU-T T.81, annex B). A segment that is cut off ends the list. */
public final class JpegSegments {
    /** Markers, the byte after 0xff. */
    static final int START_OF_SCAN = 0xda;

    static final int END = 0xd9;
    static final int RESTART_INTERVAL = 0xdd;
    static final int FIRST_RESTART = 0xd0;
    public static final int APP1 = 0xe1;
    public static final int APP2 = 0xe2;

    private JpegSegments() {}

    /**
     * @param start of the marker in the file
     * @param from first byte of the content, after the length
     * @param to exclusive
     */
    public record Segment(int marker, int start, int from, int to) {
        public boolean startsWith(byte[] file, byte[] head) {
            return to - from > head.length && Arrays.equals(file, from, from + head.length, head, 0, head.length);
        }

        /** Whether it is a frame header: height, width and components. */
        boolean isFrame() {
            return marker >= 0xc0 && marker <= 0xcf && marker != 0xc4 && marker != 0xc8 && marker != 0xcc;
        }
    }

    /** From {@code start}, where a picture begins, up to its pixels. */
    public static List<Segment> of(byte[] file, int start) {
        List<Segment> segments = new ArrayList<>();
        int at = start + 2;
        while (at + 4 <= file.length && (file[at] & 0xff) == 0xff) {
            int marker = file[at + 1] & 0xff;
            int end = at + 2 + ((file[at + 2] & 0xff) << 8 | file[at + 3] & 0xff);
            if (marker == START_OF_SCAN || marker == END || end > file.length) {
                break;
            }
            segments.add(new Segment(marker, at, at + 4, end));
            at = end;
        }
        return segments;
    }

    /** Where the first segment that {@link #of} does not list begins. */
    static int end(List<Segment> segments, int start) {
        return segments.isEmpty()
                ? start + 2
                : segments.get(segments.size() - 1).to();
    }
}
