package app.yubble.cli;

import static org.assertj.core.api.Assertions.assertThat;

import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Size;
import app.yubble.media.depthfile.DepthFileReader;
import app.yubble.media.depthfile.StoredDepthWriter;
import app.yubble.media.picture.DecodedPicture;
import app.yubble.media.picture.PictureReader;
import app.yubble.media.picture.PictureWriter;
import java.awt.image.BufferedImage;
import java.io.IOException;
import java.io.PrintWriter;
import java.io.StringWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import picocli.CommandLine;

class YubbleTest {
    @TempDir
    Path folder;

    private Path photo;
    private Path depth;
    private final StringWriter said = new StringWriter();

    private int run(String... arguments) {
        return Yubble.run(new PrintWriter(said, true), arguments);
    }

    /** Fine stripes on everything; the left half is near. */
    @BeforeEach
    void makePhoto() throws IOException {
        photo = folder.resolve("photo.png");
        depth = folder.resolve("depth.png");
        BufferedImage image = new BufferedImage(300, 200, BufferedImage.TYPE_INT_RGB);
        Plane map = new Plane(300, 200);
        for (int y = 0; y < 200; y++) {
            for (int x = 0; x < 300; x++) {
                image.setRGB(x, y, x / 2 % 2 == 0 ? 0x303030 : 0xc0c0c0);
                map.samples()[y * 300 + x] = x < 150 ? 0.8f : 0.2f;
            }
        }
        ImageIO.write(image, "png", photo.toFile());
        try (var out = Files.newOutputStream(depth)) {
            PictureWriter.writeGrey(map, out);
        }
    }

    @Test
    void everyPhotoOfAFolderIsRefocusedAndABadOneDoesNotStopTheRest() throws IOException {
        Path photos = Files.createDirectory(folder.resolve("photos"));
        Files.copy(photo, photos.resolve("a.png"));
        Files.writeString(photos.resolve("b.jpg"), "no photo");
        Files.copy(photo, photos.resolve("c.png"));
        Files.writeString(photos.resolve("notes.txt"), "of the open day");
        Path out = folder.resolve("results");
        assertThat(run("refocus", photos.toString(), "-o", out.toString(), "--engine", "layout", "--max-size", "90"))
                .isEqualTo(3);
        assertThat(out.toFile().list()).containsExactlyInAnyOrder("a.png", "c.png");
        assertThat(ImageIO.read(out.resolve("c.png").toFile()).getWidth()).isEqualTo(90);
        assertThat(said.toString())
                .contains("1 of 3  a.png", "2 of 3  b.jpg  failed:", "3 of 3  c.png")
                .contains("2 done, 1 failed, 1 other file left alone");
        Files.delete(photos.resolve("b.jpg"));
        assertThat(run(
                        "refocus",
                        photos.toString(),
                        "-o",
                        out.toString(),
                        "--engine",
                        "layout",
                        "--max-size",
                        "60",
                        "--format",
                        "jpg"))
                .isZero();
        assertThat(out.resolve("a.jpg")).exists();
    }

    @Test
    void aFolderIsRefusedWhereItsResultsWouldBeLost() throws IOException {
        Path photos = Files.createDirectory(folder.resolve("photos"));
        Path out = folder.resolve("results");
        assertThat(run("refocus", photos.toString(), "-o", out.toString())).isEqualTo(3);
        assertThat(said.toString()).contains("there is no photo in this folder");
        Files.copy(photo, photos.resolve("a.png"));
        assertThat(run("refocus", photos.toString(), "-o", photos.toString())).isEqualTo(2);
        Files.copy(photo, photos.resolve("a.tif"));
        assertThat(run("refocus", photos.toString(), "-o", out.toString(), "--format", "jpg"))
                .isEqualTo(2);
        assertThat(said.toString()).contains("a.png and a.tif would both become a.jpg");
        assertThat(run("refocus", photos.toString(), "-o", photo.toString())).isEqualTo(2);
        assertThat(run("refocus", photos.toString(), "-o", out.toString(), "--depth", depth.toString()))
                .isEqualTo(2);
        assertThat(run(
                        "refocus",
                        photo.toString(),
                        "-o",
                        folder.resolve("x.png").toString(),
                        "--format",
                        "jpg"))
                .isEqualTo(2);
        assertThat(said.toString()).contains("--format: is for folders");
        assertThat(out).doesNotExist();
    }

    private double contrast(Path file, int x) {
        Plane plane = PictureReader.DEFAULT.read(Inputs.bytes(file)).picture().red();
        return Math.abs(plane.at(x, 100) - plane.at(x + 2, 100));
    }

    @Test
    void refocusingAtAPixelKeepsItSharpAndBlursTheRest() {
        Path out = folder.resolve("out.png");
        assertThat(run(
                        "refocus",
                        photo.toString(),
                        "-o",
                        out.toString(),
                        "--depth",
                        depth.toString(),
                        "--focus",
                        "60,100",
                        "--radius-per-nearness",
                        "20"))
                .isZero();
        assertThat(contrast(out, 60)).isGreaterThan(0.4);
        assertThat(contrast(out, 240)).isLessThan(0.05);
        Path other = folder.resolve("other.png");
        assertThat(run(
                        "refocus",
                        photo.toString(),
                        "-o",
                        other.toString(),
                        "--depth",
                        depth.toString(),
                        "--focus",
                        "0.2",
                        "--band",
                        "0.1",
                        "--strength",
                        "60"))
                .isZero();
        assertThat(contrast(other, 60)).isLessThan(0.05);
        assertThat(contrast(other, 240)).isGreaterThan(0.4);
    }

    @Test
    void depthHasThePhotosSizeAndSixteenBits() {
        Path out = folder.resolve("map.png");
        assertThat(run("depth", photo.toString(), "-o", out.toString(), "--engine", "ramp"))
                .isZero();
        BufferedImage map = PictureReader.DEFAULT.readPlain(Inputs.bytes(out));
        assertThat(map.getWidth()).isEqualTo(300);
        assertThat(map.getColorModel().getComponentSize(0)).isEqualTo(16);
        assertThat(map.getRaster().getSample(150, 190, 0))
                .isGreaterThan(map.getRaster().getSample(150, 10, 0));
    }

    @Test
    void depthFollowsTheOrderOfALadder() {
        Path out = folder.resolve("map.png");
        assertThat(run(
                        "depth",
                        photo.toString(),
                        "-o",
                        out.toString(),
                        "--engine",
                        "ramp",
                        "--ladder",
                        "150,10;150,190"))
                .isZero();
        BufferedImage map = PictureReader.DEFAULT.readPlain(Inputs.bytes(out));
        assertThat(map.getRaster().getSample(150, 10, 0))
                .isGreaterThan(map.getRaster().getSample(150, 190, 0));
    }

    @Test
    void aLadderTurnsRoundWhatADepthFileSays() {
        Path out = folder.resolve("out.png");
        assertThat(run(
                        "refocus",
                        photo.toString(),
                        "-o",
                        out.toString(),
                        "--depth",
                        depth.toString(),
                        "--ladder",
                        "240,100;60,100:2",
                        "--depth-out",
                        folder.resolve("map.png").toString()))
                .isZero();
        BufferedImage map = PictureReader.DEFAULT.readPlain(Inputs.bytes(folder.resolve("map.png")));
        assertThat(map.getRaster().getSample(240, 100, 0))
                .isGreaterThan(map.getRaster().getSample(60, 100, 0));
    }

    @Test
    void aLadderThatIsNoneIsWrongUse() {
        for (String ladder : List.of("10,10;x", "10,10;400,10", "10,10:4;20,20:3", "10,10@3", "=10,10")) {
            said.getBuffer().setLength(0);
            assertThat(run(
                            "refocus",
                            photo.toString(),
                            "-o",
                            folder.resolve("out.png").toString(),
                            "--ladder",
                            ladder))
                    .as(ladder)
                    .isEqualTo(2);
            assertThat(said.toString()).contains("--ladder");
        }
    }

    @Test
    void outputIsFittedAndTimingsAreJson() {
        Path out = folder.resolve("out.jpg");
        assertThat(run("refocus", photo.toString(), "-o", out.toString(), "--max-size", "120", "--timings"))
                .isZero();
        DecodedPicture result = PictureReader.DEFAULT.read(Inputs.bytes(out));
        assertThat(result.picture().size()).isEqualTo(new Size(120, 80));
        assertThat(said.toString()).matches("(?s)\\{\"decode\":\\d+,.*\"encode\":\\d+}\\s*");
    }

    @Test
    void wrongUseIsCodeTwoAndNamesTheOption() {
        String out = folder.resolve("out.png").toString();
        assertThat(run("refocus", photo.toString(), "-o", out, "--focus", "left"))
                .isEqualTo(2);
        assertThat(said.toString()).contains("--focus");
        assertThat(run("refocus", photo.toString(), "-o", out, "--disc", "blades=4"))
                .isEqualTo(2);
        assertThat(run("refocus", photo.toString(), "-o", out, "--disc", "hollow=2"))
                .isEqualTo(2);
        assertThat(run("refocus", photo.toString(), "-o", out, "--disc", "petals=3"))
                .isEqualTo(2);
        assertThat(said.toString()).contains("petals").contains("rim, hollow, squeeze, stretch");
        assertThat(run("refocus", photo.toString(), "-o", out, "--aperture", "zero"))
                .isEqualTo(2);
        assertThat(said.toString()).contains("--aperture");
        assertThat(run("refocus", photo.toString())).isEqualTo(2);
        assertThat(run(
                        "refocus",
                        photo.toString(),
                        "-o",
                        folder.resolve("out.bmp").toString()))
                .isEqualTo(2);
        assertThat(run("depth", photo.toString(), "-o", out, "--engine", "magic"))
                .isEqualTo(2);
        assertThat(run()).isEqualTo(2);
        assertThat(Files.exists(Path.of(out))).isFalse();
    }

    @Test
    void inputThatCannotBeReadIsCodeThreeAndNamesTheFile() throws IOException {
        Path text = Files.writeString(folder.resolve("notes.jpg"), "not a picture at all");
        Path out = folder.resolve("out.png");
        assertThat(run("refocus", text.toString(), "-o", out.toString())).isEqualTo(3);
        assertThat(said.toString()).contains("notes.jpg").contains("not a picture");
        assertThat(run("depth", folder.resolve("missing.jpg").toString(), "-o", out.toString()))
                .isEqualTo(3);
        Path square = folder.resolve("square.png");
        ImageIO.write(new BufferedImage(50, 50, BufferedImage.TYPE_BYTE_GRAY), "png", square.toFile());
        assertThat(run("refocus", photo.toString(), "-o", out.toString(), "--depth", square.toString()))
                .isEqualTo(3);
        assertThat(said.toString()).contains("square.png").contains("50x50");
        try (Stream<Path> files = Files.list(folder)) {
            assertThat(files.map(file -> file.getFileName().toString())).noneMatch(name -> name.endsWith(".part"));
        }
        assertThat(Files.exists(out)).isFalse();
    }

    @Test
    void aRecipeOfAnUnknownVersionIsRefused() throws IOException {
        Path recipe = Files.writeString(folder.resolve("r.json"), "{\"format\":\"yubble-recipe\",\"version\":9}");
        assertThat(run(
                        "refocus",
                        photo.toString(),
                        "-o",
                        folder.resolve("o.png").toString(),
                        "--recipe",
                        recipe.toString()))
                .isEqualTo(2);
        assertThat(said.toString()).contains("version 9");
    }

    @Test
    void aMaskThatARecipeNamesIsReadFromBesideIt() throws IOException {
        String hash = "ab".repeat(32);
        Path recipe = Files.writeString(
                folder.resolve("r.json"),
                "{\"format\":\"yubble-recipe\",\"version\":1,\"touchups\":[{\"id\":\"a\",\"action\":\"reveal\",\"maskFile\":\""
                        + hash + "\"}]}");
        Path out = folder.resolve("out.png");
        String[] arguments = {
            "refocus",
            photo.toString(),
            "-o",
            out.toString(),
            "--recipe",
            recipe.toString(),
            "--depth",
            depth.toString(),
            "--focus",
            "60,100",
            "--radius-per-nearness",
            "20"
        };
        assertThat(run(arguments)).isEqualTo(3);
        assertThat(said.toString()).contains(hash + ".png").contains("no such file");
        // The right half of what is behind the band is revealed again.
        BufferedImage mask = new BufferedImage(150, 100, BufferedImage.TYPE_BYTE_GRAY);
        for (int i = 0; i < 100; i++) {
            for (int x = 112; x < 150; x++) {
                mask.setRGB(x, i, 0xffffff);
            }
        }
        ImageIO.write(mask, "png", folder.resolve(hash + ".png").toFile());
        assertThat(run(arguments)).isZero();
        assertThat(contrast(out, 260)).isGreaterThan(0.4);
        assertThat(contrast(out, 190)).isLessThan(0.1);
    }

    @Test
    void aResultThatCannotBeWrittenIsCodeOne() {
        assertThat(run(
                        "depth",
                        photo.toString(),
                        "-o",
                        folder.resolve("no/such/folder/out.png").toString()))
                .isEqualTo(1);
    }

    @Test
    void aMatteFromAnEngineThatLooksForNoSubjectIsWrongUseAndWritesNothing() {
        Path out = folder.resolve("map.png");
        Path matte = folder.resolve("matte.png");
        assertThat(run(
                        "depth",
                        photo.toString(),
                        "-o",
                        out.toString(),
                        "--engine",
                        "cues",
                        "--matte",
                        matte.toString()))
                .isEqualTo(2);
        assertThat(said.toString()).contains("--matte").contains("cues");
        assertThat(out).doesNotExist();
        assertThat(matte).doesNotExist();
    }

    @Test
    void anUnknownEngineNamesTheInstalledOnes() {
        assertThat(run(
                        "refocus",
                        photo.toString(),
                        "-o",
                        folder.resolve("o.png").toString(),
                        "--engine",
                        "magic"))
                .isEqualTo(2);
        assertThat(said.toString()).contains("--engine").contains("auto, cues").contains("ramp");
    }

    @Test
    void depthStoredInThePhotoIsUsedWhenAskedFor() throws IOException {
        Plane map = new DepthFileReader(PictureReader.DEFAULT).read(Files.readAllBytes(depth), new Size(300, 200));
        Path jpeg = folder.resolve("plain.jpg");
        ImageIO.write(ImageIO.read(photo.toFile()), "jpg", jpeg.toFile());
        Path stored = Files.write(
                folder.resolve("stored.jpg"), StoredDepthWriter.store(Files.readAllBytes(jpeg), map, 1, 10));
        Path out = folder.resolve("out.png");
        assertThat(run(
                        "refocus",
                        stored.toString(),
                        "-o",
                        out.toString(),
                        "--depth",
                        "camera",
                        "--focus",
                        "240,100",
                        "--radius-per-nearness",
                        "20"))
                .isZero();
        assertThat(contrast(out, 240)).isGreaterThan(0.4);
        assertThat(contrast(out, 60)).isLessThan(0.05);
        assertThat(run("refocus", jpeg.toString(), "-o", out.toString(), "--depth", "camera"))
                .isEqualTo(3);
        assertThat(said.toString()).contains("plain.jpg");
    }

    @Test
    void theHelpNamesEnginesThatThereAre() {
        for (Object command : new Object[] {new DepthCommand(), new RefocusCommand()}) {
            String help = new CommandLine(command).getUsageMessage().replaceAll("\\s+", " ");
            Matcher named =
                    Pattern.compile("for estimated depth: ((\\w+, )*\\w+)").matcher(help);
            assertThat(named.find()).as(help).isTrue();
            String[] names = named.group(1).split(", ");
            assertThat(names).contains("auto", "cues", "ramp");
            for (String engine : names) {
                assertThat(run(
                                "depth",
                                photo.toString(),
                                "-o",
                                folder.resolve("m.png").toString(),
                                "--engine",
                                engine))
                        .as(engine)
                        .isZero();
            }
        }
    }
}
