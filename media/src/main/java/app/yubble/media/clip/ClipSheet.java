package app.yubble.media.clip;

import app.yubble.core.clip.Moment;
import app.yubble.core.raster.Size;
import java.util.Arrays;
import java.util.List;
import java.util.stream.IntStream;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.json.JsonMapper;

/**
 * What is known of a clip once it has been gone through.
 *
 * @param ticks the time of each frame in ticks of the time base, strictly rising; never empty
 * @param cuts frames that are the first after a cut, rising, without frame 0
 */
public record ClipSheet(ClipInfo info, List<Long> ticks, List<Integer> cuts) {
    private static final JsonMapper JSON = new JsonMapper();
    private static final String MICROSECONDS = "1/1000000";
    private static final String SQUARE = "1/1";

    public ClipSheet {
        ticks = List.copyOf(ticks);
        cuts = List.copyOf(cuts);
        if (ticks.isEmpty()) {
            throw new IllegalArgumentException("a clip has at least one frame");
        }
    }

    /** How many frames there are. */
    public int frames() {
        return ticks.size();
    }

    /** A frame's time in millionths of a second from the first frame. */
    public long micros(int frame) {
        return inMicros(ticks.get(frame) - ticks.get(0));
    }

    private long inMicros(long many) {
        return Math.round(many * ClipProbe.fraction(info.timeBase()) * 1e6);
    }

    public Moment moment(int frame) {
        return new Moment(frame, micros(frame));
    }

    /** All of them, in order. */
    public List<Moment> moments() {
        return IntStream.range(0, frames()).mapToObj(this::moment).toList();
    }

    /** How long a frame is shown: until the next one, the last as long as the one before it. */
    public long lastsMicros(int frame) {
        if (frames() == 1) {
            return Math.round(1e6 / (info.rate() > 0 ? info.rate() : 25));
        }
        int from = Math.min(frame, frames() - 2);
        return inMicros(ticks.get(from + 1) - ticks.get(from));
    }

    /** How long the frames from {@code from} (inclusive) to {@code end} (exclusive) are shown. */
    public long shownMicros(int from, int end) {
        return (end == frames() ? totalMicros() : micros(end)) - micros(from);
    }

    /** From the first frame to the end of the last. */
    public long totalMicros() {
        if (frames() == 1) {
            return lastsMicros(0);
        }
        int last = frames() - 1;
        return inMicros(2 * ticks.get(last) - ticks.get(last - 1) - ticks.get(0));
    }

    /** The frame that is shown at a time; the first or last one outside the clip. */
    public int frameAt(long micros) {
        int low = 0;
        int high = frames() - 1;
        while (low < high) {
            int middle = (low + high + 1) / 2;
            if (micros(middle) <= micros) {
                low = middle;
            } else {
                high = middle - 1;
            }
        }
        return low;
    }

    /** The frames from one cut to the next that {@code frame} is among: its first, and the first of what follows. */
    public int[] stretchAround(int frame) {
        int from = 0;
        int to = frames();
        for (int cut : cuts) {
            if (cut <= frame) {
                from = cut;
            } else {
                to = cut;
                break;
            }
        }
        return new int[] {from, to};
    }

    /** The same frames in the smaller file that {@link ClipScan} makes. */
    public ClipSheet ofProxy(Size size) {
        ClipColours colours = new ClipColours("bt709", info.colours().transfer(), "bt709", false, true);
        return new ClipSheet(
                new ClipInfo(
                        "MP4",
                        "h264",
                        "yuv420p",
                        8,
                        size,
                        MICROSECONDS,
                        SQUARE,
                        colours,
                        0,
                        info.micros(),
                        info.rate(),
                        info.interlaced(),
                        List.of()),
                IntStream.range(0, frames()).mapToObj(this::micros).toList(),
                cuts);
    }

    /** The same frames read as the numbers that are stored, for depth. */
    ClipSheet asCodes() {
        return new ClipSheet(info.withColours(info.colours().asCodes()), ticks, cuts);
    }

    public byte[] toJson() {
        return JSON.writeValueAsBytes(this);
    }

    /** @throws IllegalArgumentException when it is none */
    public static ClipSheet of(byte[] json) {
        try {
            return JSON.readValue(json, ClipSheet.class);
        } catch (JacksonException fault) {
            throw new IllegalArgumentException("not a clip's sheet: " + fault.getOriginalMessage(), fault);
        }
    }

    /** A sheet with even pace, for frames that come from no file. */
    public static ClipSheet even(Size size, int frames, int framesASecond) {
        Long[] ticks = new Long[frames];
        Arrays.setAll(ticks, i -> (long) i);
        ClipColours colours = new ClipColours("bt709", "bt709", "bt709", false, true);
        return new ClipSheet(
                new ClipInfo(
                        "MKV",
                        "ffv1",
                        "gbrp",
                        8,
                        size,
                        "1/" + framesASecond,
                        SQUARE,
                        colours,
                        0,
                        frames * 1_000_000L / framesASecond,
                        framesASecond,
                        false,
                        List.of()),
                Arrays.asList(ticks),
                List.of());
    }
}
