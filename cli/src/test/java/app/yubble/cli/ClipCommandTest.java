package app.yubble.cli;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import app.yubble.core.raster.Plane;
import app.yubble.media.picture.PictureReader;
import java.io.IOException;
import java.io.PrintWriter;
import java.io.StringWriter;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

class ClipCommandTest {
    @TempDir
    Path folder;

    private Path clip;
    private Path depth;
    private final StringWriter said = new StringWriter();

    private int run(String... arguments) {
        return Yubble.run(new PrintWriter(said, true), arguments);
    }

    private static byte[] program(String... command) throws IOException {
        Process process = new ProcessBuilder(command).start();
        byte[] out = process.getInputStream().readAllBytes();
        assertThat(process.onExit().join().exitValue())
                .as(String.join(" ", command))
                .isZero();
        return out;
    }

    private Path film(String name, String arguments) throws IOException {
        Path out = folder.resolve(name);
        List<String> command = new ArrayList<>(List.of("ffmpeg", "-v", "quiet", "-nostdin", "-y"));
        command.addAll(Arrays.asList(arguments.split(" ")));
        command.add(out.toString());
        program(command.toArray(String[]::new));
        return out;
    }

    /** Upright stripes for twelve frames; the left half is near. */
    @BeforeEach
    void makeClip() throws IOException {
        clip = film(
                "clip.mkv",
                "-f lavfi -i nullsrc=s=160x90:r=12:d=1 -f lavfi -i sine=d=1 -vf geq=lum='60+130*mod(floor(X/2),2)':cb=128:cr=128"
                        + " -c:v ffv1 -c:a flac");
        depth = film(
                "depth.mkv",
                "-f lavfi -i nullsrc=s=160x90:r=12:d=1 -vf geq=lum='if(lt(X,80),204,51)':cb=128:cr=128,format=gray -c:v ffv1");
    }

    private double contrast(int frame, int x) {
        Path file = folder.resolve("out").resolve("frame-%04d.png".formatted(frame));
        Plane plane = PictureReader.DEFAULT.read(Inputs.bytes(file)).picture().red();
        return Math.abs(plane.at(x, 45) - plane.at(x + 2, 45));
    }

    @Test
    void focusIsPulledFromTheNearHalfToTheFarOne() {
        Path out = folder.resolve("out");
        int code = run(
                "clip",
                clip.toString(),
                "-o",
                out.toString(),
                "--depth",
                depth.toString(),
                "--pull",
                "1:0.8,12:0.2",
                "--band",
                "0.1",
                "--radius-per-nearness",
                "12",
                "--ease",
                "hold");
        assertThat(code).as(said.toString()).isZero();
        assertThat(out.toFile().list()).hasSize(12);
        assertThat(contrast(1, 40)).isGreaterThan(0.2);
        assertThat(contrast(1, 120)).isLessThan(0.1);
        assertThat(contrast(11, 40)).as("held until the last").isGreaterThan(0.2);
        assertThat(contrast(12, 40)).isLessThan(0.1);
        assertThat(contrast(12, 120)).isGreaterThan(0.2);
    }

    @Test
    void aLadderOfOneFrameActsInAllOfThem() {
        Path out = folder.resolve("out");
        int code = run(
                "clip",
                clip.toString(),
                "-o",
                out.toString(),
                "--depth",
                depth.toString(),
                "--ladder",
                "120,45@3;40,45@3",
                "--focus",
                "0.54",
                "--band",
                "0.03",
                "--radius-per-nearness",
                "100");
        assertThat(code).as(said.toString()).isZero();
        for (int frame : new int[] {1, 3, 12}) {
            assertThat(contrast(frame, 120)).as("frame %d", frame).isGreaterThan(0.2);
            assertThat(contrast(frame, 40)).as("frame %d", frame).isLessThan(0.1);
        }
    }

    @Test
    void aStretchBecomesAFilmWithItsSound() throws IOException {
        Path out = folder.resolve("out.mkv");
        int code = run(
                "clip",
                clip.toString(),
                "-o",
                out.toString(),
                "--engine",
                "ramp",
                "--quality",
                "draft",
                "--from",
                "3",
                "--to",
                "8",
                "--strength",
                "30");
        assertThat(code).as(said.toString()).isZero();
        String told = new String(
                program(
                        "ffprobe",
                        "-v",
                        "quiet",
                        "-count_frames",
                        "-show_entries",
                        "stream=codec_name,nb_read_frames",
                        "-of",
                        "csv=p=0",
                        out.toString()),
                StandardCharsets.UTF_8);
        assertThat(told.lines().toList()).contains("ffv1,6").anyMatch(line -> line.startsWith("flac"));
    }

    @Test
    void depthOfAClipIsAFolderOfMapsOrAFilm() throws IOException {
        Path maps = folder.resolve("maps");
        assertThat(run("depth", clip.toString(), "-o", maps.toString(), "--engine", "ramp", "--quality", "draft"))
                .as(said.toString())
                .isZero();
        assertThat(maps.toFile().list()).hasSize(12).contains("frame-0001.png", "frame-0012.png");
        Path film = folder.resolve("map.mkv");
        assertThat(run("depth", clip.toString(), "-o", film.toString(), "--engine", "ramp", "--quality", "draft"))
                .isZero();
        String told = new String(
                program(
                        "ffprobe",
                        "-v",
                        "quiet",
                        "-count_frames",
                        "-show_entries",
                        "stream=pix_fmt,nb_read_frames",
                        "-of",
                        "csv=p=0",
                        film.toString()),
                StandardCharsets.UTF_8);
        assertThat(told.strip()).isEqualTo("gray16le,12");
    }

    @Test
    void aPointIsFollowedThroughAClip() throws IOException {
        Path board = film(
                "board.mkv",
                "-f lavfi -i nullsrc=s=320x180:r=12:d=1 -vf geq=lum='if(lt(hypot(X-60-8*N,Y-90),16),120+90*sin(X/2-4*N)*cos(Y/3),70)':cb=128:cr=128"
                        + " -c:v ffv1");
        Path out = folder.resolve("track.json");
        assertThat(run("track", board.toString(), "--point", "84.5,90.5", "--frame", "4", "-o", out.toString()))
                .as(said.toString())
                .isZero();
        List<JsonNode> track = JsonMapper.shared()
                .readTree(Files.readString(out))
                .valueStream()
                .toList();
        assertThat(track).hasSize(12);
        for (int i = 0; i < 12; i++) {
            JsonNode each = track.get(i);
            assertThat(each.path("frame").intValue()).isEqualTo(i + 1);
            assertThat(each.path("x").doubleValue()).isCloseTo(60.5 + 8 * i, within(0.7));
            assertThat(each.path("y").doubleValue()).isCloseTo(90.5, within(0.7));
            assertThat(each.path("visible").booleanValue() && each.path("sure").booleanValue())
                    .isTrue();
        }
        assertThat(run("track", board.toString(), "--point", "400,90", "-o", out.toString()))
                .isEqualTo(2);
        assertThat(run("track", board.toString(), "--point", "40,90", "--frame", "13", "-o", out.toString()))
                .isEqualTo(2);
    }

    /** A striped board goes from the far half to the near one; depth is near where it is at the end. Followed, it stays as it was. */
    private Path followedBoard(String... more) throws IOException {
        Path board = film(
                "board.mkv",
                "-f lavfi -i nullsrc=s=320x180:r=12:d=1 -vf geq=lum='if(lt(hypot(X-60-16*N,Y-90),24),120+90*sin(X/2-8*N)*cos(Y/3),70)':cb=128:cr=128"
                        + " -c:v ffv1");
        Path map = film(
                "map.mkv",
                "-f lavfi -i nullsrc=s=320x180:r=12:d=1 -vf geq=lum='51+12*N':cb=128:cr=128,format=gray -c:v ffv1");
        Path out = folder.resolve("out");
        List<String> arguments = new ArrayList<>(List.of(
                "clip",
                board.toString(),
                "-o",
                out.toString(),
                "--depth",
                map.toString(),
                "--follow",
                "60.5,90.5@1",
                "--band",
                "0.1",
                "--radius-per-nearness",
                "60"));
        arguments.addAll(List.of(more));
        assertThat(run(arguments.toArray(String[]::new))).as(said.toString()).isZero();
        Plane before = PictureReader.DEFAULT
                .read(program(
                        "ffmpeg",
                        "-v",
                        "quiet",
                        "-i",
                        board.toString(),
                        "-vf",
                        "select=eq(n\\,6)",
                        "-frames:v",
                        "1",
                        "-f",
                        "image2pipe",
                        "-c:v",
                        "png",
                        "-"))
                .picture()
                .red();
        Plane after = PictureReader.DEFAULT
                .read(Inputs.bytes(out.resolve("frame-0007.png")))
                .picture()
                .red();
        assertThat(spread(after)).isGreaterThan(0.8 * spread(before));
        return board;
    }

    /** What is left of the stripes of the board in the seventh frame. */
    private static double spread(Plane plane) {
        double low = 1;
        double high = 0;
        for (int x = 140; x < 172; x++) {
            low = Math.min(low, plane.at(x, 90));
            high = Math.max(high, plane.at(x, 90));
        }
        return high - low;
    }

    @Test
    void focusKeepsToWhatIsFollowed() throws IOException {
        // Depth has gone on by 0.28 since the first frame: without following nothing would be left of the stripes.
        Path board = followedBoard();
        Path out = folder.resolve("out");
        assertThat(run("clip", board.toString(), "-o", out.toString(), "--follow", "60,90@99"))
                .isEqualTo(2);
        assertThat(run("clip", board.toString(), "-o", out.toString(), "--follow", "here"))
                .isEqualTo(2);
    }

    @Test
    void focusKeepsToWhatIsFollowedAlsoWhereALadderHasMovedIt() throws IOException {
        // The beginning nearer than the middle, which is the wrong way round: depth at the middle moves by 0.18.
        followedBoard("--ladder", "60,90@1;156,90@7");
    }

    @Test
    void aSubjectIsKeptSharpThroughTheClip() throws IOException {
        Path board = film(
                "kept.mkv",
                "-f lavfi -i nullsrc=s=320x180:r=12:d=1 -vf geq=lum='if(lt(hypot(X-60-10*N,Y-90),24),120+90*sin(X/2-5*N)*cos(Y/3),70)':cb=128:cr=128"
                        + " -c:v ffv1");
        Path map = film(
                "kept-map.mkv",
                "-f lavfi -i nullsrc=s=320x180:r=12:d=1 -vf geq=lum='if(lt(hypot(X-60-10*N,Y-90),26),180,30)':cb=128:cr=128,format=gray"
                        + " -c:v ffv1");
        Path out = folder.resolve("kept");
        String[] plain = {
            "clip",
            board.toString(),
            "-o",
            out.toString(),
            "--depth",
            map.toString(),
            "--focus",
            "20,20",
            "--band",
            "0.1",
            "--radius-per-nearness",
            "20",
            "--from",
            "9",
            "--to",
            "9"
        };
        assertThat(run(plain)).as(said.toString()).isZero();
        double blurred = stripes(out.resolve("frame-0009.png"));
        String[] kept = Arrays.copyOf(plain, plain.length + 2);
        kept[plain.length] = "--keep";
        kept[plain.length + 1] = "60.5,90.5@1";
        assertThat(run(kept)).as(said.toString()).isZero();
        assertThat(stripes(out.resolve("frame-0009.png"))).isGreaterThan(5 * blurred);
        assertThat(run("clip", board.toString(), "-o", out.toString(), "--keep", "400,90"))
                .isEqualTo(2);
        assertThat(run("clip", board.toString(), "-o", out.toString(), "--keep", "60,90@99"))
                .isEqualTo(2);
    }

    /** How much neighbours differ along the middle line of the disc that lies at 140. */
    private static double stripes(Path png) throws IOException {
        Plane red = PictureReader.DEFAULT.read(Inputs.bytes(png)).picture().red();
        double sum = 0;
        for (int x = 124; x < 156; x++) {
            sum += Math.abs(red.at(x, 90) - red.at(x + 2, 90));
        }
        return sum;
    }

    @Test
    void wrongUseAndUnreadableInputHaveTheirCodesAndOneLine() throws IOException {
        Path out = folder.resolve("out.mp4");
        assertThat(run("clip", clip.toString(), "-o", out.toString(), "--pull", "99:0.5"))
                .isEqualTo(2);
        assertThat(said.toString()).contains("--pull: the clip has frames 1 to 12, found 99");
        assertThat(run("clip", clip.toString(), "-o", folder.resolve("out.avi").toString()))
                .isEqualTo(2);
        Path notes = folder.resolve("notes.mp4");
        Files.writeString(notes, "Notes of the open day.");
        assertThat(run("clip", notes.toString(), "-o", out.toString())).isEqualTo(3);
        assertThat(said.toString()).contains("notes.mp4: it is no clip");
        assertThat(run("clip", folder.resolve("none.mp4").toString(), "-o", out.toString()))
                .isEqualTo(3);
        Path shorter = film("short.mkv", "-f lavfi -i testsrc2=s=160x90:r=12:d=0.5 -pix_fmt gray -c:v ffv1");
        assertThat(run("clip", clip.toString(), "-o", out.toString(), "--depth", shorter.toString()))
                .isEqualTo(3);
        assertThat(said.toString()).contains("the depth clip has 6 frames, the clip has 12 frames");
        assertThat(out).doesNotExist();
        assertThat(folder.toFile().list((in, name) -> name.startsWith(".yubble")))
                .as("nothing is left behind")
                .isEmpty();
    }
}
