package app.yubble.media.clip;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Progress;
import app.yubble.core.raster.Size;
import app.yubble.media.picture.ToneCurve;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class ClipTest {
    private static final String SCENE = "-f lavfi -i testsrc2=size=320x180:rate=24:duration=2 ";
    private static final String TONE = "-f lavfi -i sine=frequency=330:duration=2 ";
    /** Frame intervals of 40, 40, 120 ms, and so on. */
    private static final String UNEVEN =
            "-vf settb=1/90000,setpts='(N+2*floor(N/3))*0.04/TB' -fps_mode passthrough -enc_time_base 1:90000 ";

    @TempDir
    Path folder;

    private Path film(String name, String arguments) {
        return Film.make(folder.resolve(name), arguments);
    }

    private ClipScan scan(Path file) {
        return ClipScan.of(
                file,
                ClipProbe.probe(file),
                folder.resolve("proxy.mp4"),
                folder.resolve("times"),
                new ClipScan.Limits(10_000),
                Progress.NONE);
    }

    private static List<Picture> read(Path file, ClipSheet sheet, int from, int to) {
        List<Picture> out = new ArrayList<>();
        try (ClipFrames frames = ClipFrames.open(file, sheet, from, to)) {
            for (Picture each = frames.next(); each != null; each = frames.next()) {
                out.add(each);
            }
        }
        return out;
    }

    private static List<Double> seconds(ClipSheet sheet) {
        return sheet.moments().stream().map(each -> each.micros() / 1e6).toList();
    }

    private static void assertTimes(List<Double> found, List<Double> wanted, double tolerance) {
        assertThat(found).hasSameSizeAs(wanted);
        for (int i = 0; i < found.size(); i++) {
            assertThat(found.get(i) - found.get(0))
                    .as("frame %d", i)
                    .isCloseTo(wanted.get(i) - wanted.get(0), within(tolerance));
        }
    }

    /** Largest difference of a channel of any pixel from 8-bit codes. */
    private static double worst(Picture picture, byte[] rgb, int frame, ToneCurve curve) {
        float[][] codes = curve.codes();
        int pixels = (int) picture.size().pixels();
        double worst = 0;
        for (int c = 0; c < 3; c++) {
            float[] samples = picture.planes().get(c).samples();
            for (int i = 0; i < pixels; i++) {
                long code = Math.round(ToneCurve.encoded(codes[c], samples[i]) * 255.0);
                worst = Math.max(worst, Math.abs(code - (rgb[(frame * pixels + i) * 3 + c] & 0xff)));
            }
        }
        return worst;
    }

    @ParameterizedTest
    @CsvSource({
        "mp4, libx264 -pix_fmt yuv420p, H264, 8",
        "mov, prores_ks -profile:v 3 -pix_fmt yuv422p10le, PRORES, 10",
        "mkv, ffv1 -pix_fmt yuv444p10le, FFV1, 10",
        "mkv, libx265 -x265-params log-level=none -pix_fmt yuv420p10le, HEVC, 10",
        "webm, libvpx-vp9 -deadline realtime -cpu-used 8 -pix_fmt yuv420p, VP9, 8",
        "webm, libsvtav1 -preset 12 -pix_fmt yuv420p, AV1, 8",
    })
    void everyKindOfClipIsReadFrameByFrame(String ending, String encoder, String codec, int bits) {
        Path file = film("a." + ending, SCENE + TONE + "-t 1 -c:v " + encoder + " OUT");
        ClipScan scan = scan(file);
        assertThat(scan.sheet().info().codec()).isEqualToIgnoringCase(codec);
        assertThat(scan.sheet().info().bits()).isEqualTo(bits);
        assertThat(scan.sheet().info().sounds()).hasSize(1);
        assertThat(scan.complaint()).isEmpty();
        assertTimes(seconds(scan.sheet()), Film.times(file), 1e-6);
        byte[] own = Film.rgb(file, ":in_color_matrix=smpte170m:in_range=limited");
        List<Picture> all = read(file, scan.sheet(), 0, scan.sheet().frames());
        assertThat(all).hasSize(24);
        ToneCurve curve = scan.sheet().info().colours().curve();
        for (int frame : new int[] {0, 11, 23}) {
            assertThat(worst(all.get(frame), own, frame, curve))
                    .as("frame %d", frame)
                    .isLessThanOrEqualTo(1);
        }
    }

    @ParameterizedTest
    @CsvSource({
        "bt709, tv, in_color_matrix=bt709:in_range=limited",
        "bt709, pc, in_color_matrix=bt709:in_range=full",
        "smpte170m, tv, in_color_matrix=smpte170m:in_range=limited",
        "bt470bg, pc, in_color_matrix=smpte170m:in_range=full",
        "bt2020nc, tv, in_color_matrix=bt2020:in_range=limited",
    })
    void coloursAreReadAsTheyAreTagged(String matrix, String range, String own) {
        Path file = film(
                "a.mkv",
                SCENE + "-t 0.2 -vf scale=out_color_matrix=" + matrix.replace("nc", "") + ":out_range=" + range
                        + ",format=yuv420p -colorspace " + matrix + " -color_range " + range + " -c:v ffv1 OUT");
        ClipScan scan = scan(file);
        assertThat(scan.sheet().info().colours().matrix()).isEqualTo(matrix);
        byte[] wanted = Film.rgb(file, ":" + own);
        Picture first = read(file, scan.sheet(), 0, 1).get(0);
        assertThat(worst(first, wanted, 0, scan.sheet().info().colours().curve()))
                .isLessThanOrEqualTo(1);
    }

    @Test
    void everyFrameOfAnUnevenClipKeepsItsTime() {
        Path file = film("a.mp4", SCENE + UNEVEN + "-c:v libx264 -g 12 -video_track_timescale 90000 OUT");
        ClipScan scan = scan(file);
        assertThat(scan.sheet().micros(3)).isEqualTo(200_000);
        assertTimes(seconds(scan.sheet()), Film.times(file), 1e-6);
        assertTimes(Film.times(folder.resolve("proxy.mp4")), Film.times(file), 2e-6);
    }

    @Test
    void aStretchBeginsAtExactlyTheFrameThatIsAskedFor() {
        Path file = film("a.mp4", SCENE + UNEVEN + "-c:v libx264 -g 250 -bf 3 OUT");
        ClipSheet sheet = scan(file).sheet();
        List<Picture> all = read(file, sheet, 0, sheet.frames());
        for (int from : new int[] {0, 1, 17, 40, sheet.frames() - 1}) {
            int to = Math.min(sheet.frames(), from + 3);
            List<Picture> some = read(file, sheet, from, to);
            assertThat(some).hasSize(to - from);
            for (int i = 0; i < some.size(); i++) {
                assertThat(some.get(i).red().samples())
                        .isEqualTo(all.get(from + i).red().samples());
            }
        }
    }

    @Test
    void anyFrameOfTheSmallFileIsFoundByItsTime() {
        Path file = film("a.mp4", SCENE + UNEVEN + "-c:v libx264 OUT");
        ClipSheet sheet = scan(file).sheet();
        ClipSheet small = sheet.ofProxy(ClipScan.proxySize(sheet.info().size()));
        List<Picture> all = read(folder.resolve("proxy.mp4"), small, 0, small.frames());
        Picture one = read(folder.resolve("proxy.mp4"), small, 29, 30).get(0);
        assertThat(one.green().samples()).isEqualTo(all.get(29).green().samples());
    }

    @Test
    void aClipThatWasFilmedUprightIsRead() {
        Path flat = film("flat.mp4", SCENE + "-c:v libx264 OUT");
        Path file = Film.make(folder.resolve("a.mp4"), "-i " + flat + " -c copy -metadata:s:v:0 rotate=90 OUT");
        ClipScan scan = scan(file);
        assertThat(scan.sheet().info().size()).isEqualTo(new Size(180, 320));
        Picture turned = read(file, scan.sheet(), 0, 1).get(0);
        assertThat(turned.size()).isEqualTo(new Size(180, 320));
        byte[] own = Film.rgb(file, ":in_color_matrix=smpte170m:in_range=limited");
        assertThat(worst(turned, own, 0, scan.sheet().info().colours().curve())).isLessThanOrEqualTo(1);
    }

    @Test
    void cutsAreFoundAndMovementIsNotTakenForOne() {
        Path file = film(
                "a.mp4",
                "-f lavfi -i testsrc2=size=320x180:rate=24:duration=1 -f lavfi -i mandelbrot=size=320x180:rate=24"
                        + " -filter_complex [1:v]trim=duration=1[m];[0:v][m]concat=n=2 -c:v libx264 OUT");
        assertThat(scan(file).sheet().cuts()).containsExactly(24);
    }

    @Test
    void aClipThatWasCutOffGivesWhatCanBeRead() throws IOException {
        Path whole = film("whole.mp4", SCENE + "-c:v libx264 -g 12 -movflags +faststart OUT");
        byte[] bytes = Files.readAllBytes(whole);
        Path file = folder.resolve("a.mp4");
        Files.write(file, java.util.Arrays.copyOf(bytes, bytes.length * 6 / 10));
        ClipScan scan = scan(file);
        assertThat(scan.sheet().frames()).isBetween(15, 40);
        assertThat(scan.complaint()).isNotEmpty();
        assertThat(read(file, scan.sheet(), 0, scan.sheet().frames()))
                .hasSize(scan.sheet().frames());
    }

    @Test
    void whatIsNoClipIsRefusedWithTheReason() throws IOException {
        Path text = folder.resolve("a.mp4");
        Files.writeString(text, "Notes of the open day, not a clip at all.");
        assertRefused(text, "it is no clip");
        Path list = folder.resolve("list.mp4");
        Files.writeString(list, "ffconcat version 1.0\nfile '/etc/passwd'\n");
        assertRefused(list, "it is no clip");
        Path playlist = folder.resolve("playlist.mp4");
        Files.writeString(playlist, "#EXTM3U\n#EXTINF:1,\nfile:///etc/passwd\n#EXT-X-ENDLIST\n");
        assertRefused(playlist, "it is no clip");
        assertRefused(film("sound.mp4", TONE + "OUT"), "no pictures in it, only sound");
        Path whole = film("whole.mp4", SCENE + "-c:v libx264 OUT");
        byte[] bytes = Files.readAllBytes(whole);
        Path headless = folder.resolve("headless.mp4");
        Files.write(headless, java.util.Arrays.copyOf(bytes, bytes.length / 2));
        assertRefused(headless, "its index is missing");
        assertRefused(
                film("hlg.mp4", SCENE + "-t 0.2 -c:v libx264 -color_trc arib-std-b67 -colorspace bt2020nc OUT"), "HLG");
        assertRefused(film("huff.mkv", SCENE + "-t 0.2 -c:v ffvhuff OUT"), "ffvhuff");
    }

    private static void assertRefused(Path file, String reason) {
        assertThatThrownBy(() -> ClipProbe.probe(file))
                .isInstanceOf(UnreadableClipException.class)
                .hasMessageContaining(reason)
                .hasMessageNotContaining("/tmp");
    }

    @Test
    void aClipOfTooManyFramesIsRefused() {
        Path file = film("a.mp4", SCENE + "-c:v libx264 OUT");
        assertThatThrownBy(() -> ClipScan.of(
                        file,
                        ClipProbe.probe(file),
                        folder.resolve("p.mp4"),
                        folder.resolve("t"),
                        new ClipScan.Limits(20),
                        Progress.NONE))
                .isInstanceOf(UnreadableClipException.class)
                .hasMessage("it has more than 20 frames");
    }

    /** The clip written again in stretches, as it is. */
    private Path again(Path file, ClipFormat format, int... ends) {
        ClipSheet sheet = scan(file).sheet();
        List<ClipJoiner.Stretch> stretches = new ArrayList<>();
        int from = ends[0];
        for (int i = 1; i < ends.length; i++) {
            Path part = folder.resolve("part-" + i + ".nut");
            try (StretchWriter writer = StretchWriter.open(
                    part, format, 1, sheet.info(), sheet.info().size())) {
                List<Picture> frames = read(file, sheet, from, ends[i]);
                for (int k = 0; k < frames.size(); k++) {
                    writer.add(frames.get(k), sheet.micros(from + k) - sheet.micros(from), sheet.lastsMicros(from + k));
                }
                writer.finish();
            }
            stretches.add(new ClipJoiner.Stretch(part, sheet.shownMicros(from, ends[i])));
            from = ends[i];
        }
        Path out = folder.resolve("out." + format.ending());
        long first = sheet.micros(ends[0]);
        long micros = stretches.stream().mapToLong(ClipJoiner.Stretch::micros).sum();
        ClipJoiner.join(
                stretches,
                folder.resolve("list"),
                sheet.info(),
                new ClipJoiner.Sound(file, sheet.info(), first, micros),
                format,
                out);
        return out;
    }

    @ParameterizedTest
    @CsvSource({"MP4, 1e-6", "VP9, 0.0011", "AV1, 0.0011", "FFV1, 0.0011"})
    void aClipWrittenInStretchesHasTheSameFramesAtTheSameTimes(ClipFormat format, double tolerance) {
        Path file = film(
                "a.mp4",
                SCENE + TONE + UNEVEN + "-c:v libx264 -video_track_timescale 90000 -c:a aac -colorspace bt709"
                        + " -color_primaries bt709 -color_trc bt709 OUT");
        int frames = Film.times(file).size();
        Path out = again(file, format, 0, 13, 30, frames);
        assertTimes(Film.times(out), Film.times(file), tolerance);
        assertThat(Film.told(out, "color_space,color_transfer,color_primaries"))
                .isEqualTo(Film.told(file, "color_space,color_transfer,color_primaries"));
        if (format == ClipFormat.MP4 || format == ClipFormat.FFV1) {
            assertThat(Film.sound(out)).isEqualTo(Film.sound(file));
        } else {
            assertThat(Film.sound(out)).isNotEmpty();
        }
    }

    @ParameterizedTest
    @CsvSource({"yuv420p, bt709, tv", "yuv422p10le, bt709, tv", "yuv444p, smpte170m, pc"})
    void ffv1GivesTheClipBackWithinOneOf255(String pixels, String matrix, String range) {
        Path file = film(
                "a.mkv",
                SCENE + "-t 0.5 -vf scale=out_color_matrix=" + matrix + ":out_range=" + range + ",format=" + pixels
                        + " -colorspace " + matrix + " -color_range " + range + " -c:v ffv1 OUT");
        Path out = again(file, ClipFormat.FFV1, 0, 12);
        String scale = ":in_color_matrix=" + matrix + ":in_range=" + (range.equals("pc") ? "full" : "limited");
        byte[] before = Film.rgb(file, scale);
        byte[] after = Film.rgb(out, scale);
        int worst = 0;
        for (int i = 0; i < before.length; i++) {
            worst = Math.max(worst, Math.abs((before[i] & 0xff) - (after[i] & 0xff)));
        }
        assertThat(after).hasSameSizeAs(before);
        assertThat(worst).isLessThanOrEqualTo(1);
    }

    @Test
    void theSoundOfAPartStaysWithItsPictures() {
        // A click at one second, when the picture turns white.
        Path file = film(
                "a.mp4",
                "-f lavfi -i color=black:size=64x64:rate=25:duration=2 -f lavfi -i aevalsrc='if(between(t,1,1.02),0.9,0)':d=2"
                        + " -vf drawbox=color=white:t=fill:enable='between(t,1,1.1)' -c:v libx264 -c:a aac OUT");
        ClipSheet sheet = scan(file).sheet();
        Path out = again(file, ClipFormat.MP4, 10, sheet.frames());
        double white = firstWhite(out);
        byte[] samples = Film.run(
                "ffmpeg",
                "-v",
                "error",
                "-i",
                out.toString(),
                "-map",
                "0:a",
                "-af",
                "aresample=async=1:first_pts=0",
                "-ac",
                "1",
                "-ar",
                "48000",
                "-f",
                "s16le",
                "-");
        int loud = 0;
        while (Math.abs(samples[2 * loud + 1]) < 40) {
            loud++;
        }
        assertThat(loud / 48000.0).isCloseTo(white, within(0.04));
        assertThat(white).isCloseTo(0.6, within(0.001));
    }

    private double firstWhite(Path file) {
        byte[] rgb = Film.rgb(file, "");
        int frame = 0;
        while ((rgb[frame * 64 * 64 * 3] & 0xff) < 128) {
            frame++;
        }
        return Film.times(file).get(frame);
    }
}
