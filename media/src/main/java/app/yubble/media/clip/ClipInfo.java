package app.yubble.media.clip;

import app.yubble.core.raster.Size;
import java.util.List;

/**
 * What a clip's file says of itself.
 *
 * @param container in a word: MP4, MOV, MKV or WebM
 * @param codec of the pictures, as ffmpeg calls it
 * @param pixels their layout, as ffmpeg calls it
 * @param bits of a sample
 * @param size upright
 * @param timeBase seconds of one tick of the frames' times, as a fraction such as {@code 1/12800}
 * @param pixelShape width of a pixel over its height, as a fraction such as {@code 1/1}
 * @param startMicros how much later than the file's earliest stream its pictures begin
 * @param micros how long the file says it is; 0 when it does not say
 * @param rate frames a second on average, 0 when unknown
 * @param interlaced whether a frame holds two half pictures of different times
 * @param sounds codecs of its sound tracks, as ffmpeg calls them
 */
public record ClipInfo(
        String container,
        String codec,
        String pixels,
        int bits,
        Size size,
        String timeBase,
        String pixelShape,
        ClipColours colours,
        long startMicros,
        long micros,
        double rate,
        boolean interlaced,
        List<String> sounds) {
    public ClipInfo {
        sounds = List.copyOf(sounds);
    }

    /** Whether a pixel is as wide as high, to a thousandth. */
    public boolean hasSquarePixels() {
        return Math.abs(ClipProbe.fraction(pixelShape) - 1) < 1e-3;
    }

    ClipInfo withColours(ClipColours value) {
        return new ClipInfo(
                container,
                codec,
                pixels,
                bits,
                size,
                timeBase,
                pixelShape,
                value,
                startMicros,
                micros,
                rate,
                interlaced,
                sounds);
    }
}
