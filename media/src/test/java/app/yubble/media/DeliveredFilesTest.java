package app.yubble.media;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Region;
import app.yubble.core.raster.Resample;
import app.yubble.core.raster.Size;
import app.yubble.core.refocus.Layers;
import app.yubble.media.depthfile.CameraDepthReader;
import app.yubble.media.depthfile.DepthFileReader;
import app.yubble.media.depthfile.DepthWriter;
import app.yubble.media.depthfile.StoredDepthWriter;
import app.yubble.media.layered.LayeredWriter;
import app.yubble.media.picture.Carried;
import app.yubble.media.picture.ColourSpace;
import app.yubble.media.picture.DecodedPicture;
import app.yubble.media.picture.Origin;
import app.yubble.media.picture.PictureReader;
import app.yubble.media.picture.PictureWriter;
import app.yubble.media.picture.WriteSettings;
import java.awt.color.ICC_ColorSpace;
import java.awt.color.ICC_Profile;
import java.awt.image.BufferedImage;
import java.awt.image.ColorConvertOp;
import java.awt.image.Raster;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.zip.ZipEntry;
import java.util.zip.ZipInputStream;
import javax.imageio.ImageIO;
import javax.imageio.ImageReader;
import javax.imageio.stream.ImageInputStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import org.junit.jupiter.params.provider.ValueSource;

/** What leaves Yubble, read by others: exiftool and the platform's own readers and colour management. */
class DeliveredFilesTest {
    private static final Path DOG = Path.of("../demo/photos/dog.jpg");

    private final PictureReader reader = PictureReader.DEFAULT;

    @TempDir
    private Path folder;

    private String exiftool(List<String> arguments, Path file) throws IOException, InterruptedException {
        List<String> command = new ArrayList<>(List.of("exiftool"));
        command.addAll(arguments);
        command.add(file.toString());
        Process process = new ProcessBuilder(command).redirectErrorStream(true).start();
        String said = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        process.waitFor();
        return said;
    }

    /** A photo with what photographers and archives write into one. */
    private DecodedPicture noted() throws IOException, InterruptedException {
        Path photo = folder.resolve("noted.jpg");
        Picture small = Resample.toSize(reader.read(DOG).picture(), new Size(300, 200));
        Files.write(photo, written(small, Origin.srgb(small.size()), WriteSettings.of(PictureWriter.Format.JPEG, 1)));
        exiftool(
                List.of(
                        "-q",
                        "-overwrite_original",
                        "-EXIF:Artist=Ida Brandt",
                        "-EXIF:ExposureTime=1/60",
                        "-EXIF:GPSLatitude=48.5",
                        "-EXIF:GPSLatitudeRef=N",
                        "-EXIF:Orientation#=1",
                        "-XMP-dc:Title=Open day",
                        "-XMP-photoshop:City=Halden",
                        "-XMP-tiff:Orientation#=6",
                        "-IPTC:City=Halden",
                        "-IPTC:Caption-Abstract=The club"),
                photo);
        return reader.read(photo);
    }

    private static byte[] written(Picture picture, Origin origin, WriteSettings settings) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        PictureWriter.write(picture, origin, settings, out);
        return out.toByteArray();
    }

    private String notes(byte[] content, PictureWriter.Format format) throws IOException, InterruptedException {
        Path file = folder.resolve("out." + format.type().ending());
        Files.write(file, content);
        return exiftool(List.of("-a", "-s", "-G0"), file);
    }

    @ParameterizedTest
    @EnumSource(PictureWriter.Format.class)
    void metadataStayAndTellWhatWasDone(PictureWriter.Format format) throws IOException, InterruptedException {
        DecodedPicture photo = noted();
        WriteSettings settings =
                new WriteSettings(format, 0.9, false, new Carried(ColourSpace.SOURCE, true, "refocused for a test"));
        String said = notes(written(photo.picture(), photo.origin(), settings), format);
        assertThat(said)
                .containsPattern("EXIF.*Artist +: Ida Brandt")
                .containsPattern("EXIF.*ExposureTime +: 1/60")
                .containsPattern("EXIF.*GPSLatitude +: 48 deg 30'")
                .containsPattern("XMP.*Title +: Open day")
                .containsPattern("XMP.*HistoryParameters +: refocused for a test")
                .containsPattern("XMP.*HistorySoftwareAgent +: Yubble")
                .doesNotContainPattern("XMP.*Orientation")
                .doesNotContain("Error");
        if (List.of("jpg", "tif").contains(format.type().ending())) {
            assertThat(said).containsPattern("IPTC.*Caption-Abstract +: The club");
        }
        if (format == PictureWriter.Format.JPEG) {
            assertThat(said).containsPattern("ThumbnailImage +: \\(Binary data");
        }
    }

    @ParameterizedTest
    @EnumSource(PictureWriter.Format.class)
    void thePlaceGoesWhenItIsToGo(PictureWriter.Format format) throws IOException, InterruptedException {
        DecodedPicture photo = noted();
        WriteSettings settings = new WriteSettings(format, 0.9, false, new Carried(ColourSpace.SOURCE, false, null));
        assertThat(notes(written(photo.picture(), photo.origin(), settings), format))
                .contains("Ida Brandt", "Open day")
                .doesNotContain("Halden", "GPSLatitude");
    }

    @ParameterizedTest
    @EnumSource(
            value = PictureWriter.Format.class,
            mode = EnumSource.Mode.EXCLUDE,
            names = {"JPEG"})
    void anUntouchedPhotoComesBackAsItWas(PictureWriter.Format format) throws IOException {
        DecodedPicture photo = reader.read(DOG);
        byte[] file = written(photo.picture(), photo.origin(), WriteSettings.of(format, 1));
        BufferedImage before = ImageIO.read(DOG.toFile());
        DecodedPicture back = reader.read(file);
        BufferedImage after =
                PictureWriter.encoded(back.picture(), back.origin().curve(), false);
        assertThat(most(before.getRaster(), after.getRaster(), 1)).isLessThanOrEqualTo(1);
    }

    @ParameterizedTest
    @EnumSource(
            value = PictureWriter.Format.class,
            names = {"PNG16", "TIFF16"})
    void sixteenBitsStayBitForBit(PictureWriter.Format format) throws IOException {
        DecodedPicture photo = reader.read(DOG);
        byte[] source = written(photo.picture(), photo.origin(), WriteSettings.of(PictureWriter.Format.PNG16, 1));
        DecodedPicture read = reader.read(source);
        assertThat(read.origin().isDeep()).isTrue();
        byte[] file = written(read.picture(), read.origin(), WriteSettings.of(format, 1));
        Raster before = ImageIO.read(new ByteArrayInputStream(source)).getRaster();
        assertThat(most(before, ImageIO.read(new ByteArrayInputStream(file)).getRaster(), 1))
                .isZero();
    }

    private static double most(Raster a, Raster b, double scale) {
        double most = 0;
        int[] left = new int[4];
        int[] right = new int[4];
        for (int y = 0; y < a.getHeight(); y++) {
            for (int x = 0; x < a.getWidth(); x++) {
                a.getPixel(x, y, left);
                b.getPixel(x, y, right);
                for (int c = 0; c < 3; c++) {
                    most = Math.max(most, Math.abs(left[c] - right[c]) / scale);
                }
            }
        }
        return most;
    }

    @ParameterizedTest
    @EnumSource(
            value = ColourSpace.class,
            names = {"DISPLAY_P3", "BT2020"})
    void coloursAreConvertedAsAColourManagementSystemDoes(ColourSpace space) throws IOException {
        DecodedPicture photo = reader.read(DOG);
        DecodedPicture there = space.converted(photo.picture(), photo.origin());
        byte[] profile = there.origin().profile();
        assertThat(profile).isNotNull();
        BufferedImage own =
                PictureWriter.encoded(there.picture(), there.origin().curve(), true);
        BufferedImage before =
                PictureWriter.encoded(photo.picture(), photo.origin().curve(), true);
        Raster theirs = new ColorConvertOp(new ICC_Profile[] {ICC_Profile.getInstance(profile)}, null)
                .filter(
                        before,
                        new BufferedImage(
                                new java.awt.image.ComponentColorModel(
                                        new ICC_ColorSpace(ICC_Profile.getInstance(profile)),
                                        false,
                                        false,
                                        1,
                                        before.getRaster().getDataBuffer().getDataType()),
                                before.getRaster().createCompatibleWritableRaster(),
                                false,
                                null))
                .getRaster();
        assertThat(most(own.getRaster(), theirs, 257)).isLessThanOrEqualTo(1);
        assertThat(most(own.getRaster(), before.getRaster(), 257)).isGreaterThan(10);
        // There and back again.
        DecodedPicture back = ColourSpace.SRGB.converted(there.picture(), there.origin());
        assertThat(back.picture().red().at(700, 500))
                .isCloseTo(photo.picture().red().at(700, 500), within(0.001f));
    }

    private Layers layers(DecodedPicture photo) {
        Picture refocused = Picture.blank(photo.picture().size());
        Plane share = new Plane(refocused.size());
        for (int i = 0; i < share.samples().length; i++) {
            int column = i % share.width();
            share.samples()[i] = column < 20 ? 0 : Math.min(1, column / 200f);
            for (int c = 0; c < 3; c++) {
                refocused.planes().get(c).samples()[i] = i % 7 * 0.15f;
            }
        }
        return new Layers(photo.picture(), refocused, share);
    }

    /** As any program composes: code values, the upper over the lower. */
    private static double differenceOfComposed(Raster lower, Raster upper, Raster flat, int white) {
        double most = 0;
        int[] below = new int[4];
        int[] above = new int[4];
        int[] wanted = new int[4];
        for (int y = 0; y < flat.getHeight(); y++) {
            for (int x = 0; x < flat.getWidth(); x++) {
                lower.getPixel(x, y, below);
                upper.getPixel(x, y, above);
                flat.getPixel(x, y, wanted);
                for (int c = 0; c < 3; c++) {
                    double share = above[3] / (double) white;
                    long composed = Math.round(below[c] + share * (above[c] - below[c]));
                    most = Math.max(most, Math.abs(composed - wanted[c]) * 255.0 / white);
                }
            }
        }
        return most;
    }

    @ParameterizedTest
    @ValueSource(booleans = {false, true})
    void layersComposeToTheFlatResult(boolean deep) throws IOException {
        DecodedPicture dog = reader.read(DOG);
        Picture small = Resample.crop(dog.picture(), new Region(300, 200, 240, 160));
        Origin plain = dog.origin().withSize(small.size());
        byte[] source = written(
                small, plain, WriteSettings.of(deep ? PictureWriter.Format.PNG16 : PictureWriter.Format.PNG8, 1));
        DecodedPicture photo = reader.read(source);
        Layers layers = layers(photo);
        int white = deep ? 65535 : 255;

        ByteArrayOutputStream ora = new ByteArrayOutputStream();
        LayeredWriter.write(layers, photo.origin(), LayeredWriter.Format.OPENRASTER, Carried.ALL, ora);
        Map<String, byte[]> parts = new HashMap<>();
        List<String> names = new ArrayList<>();
        try (ZipInputStream zip = new ZipInputStream(new ByteArrayInputStream(ora.toByteArray()))) {
            for (ZipEntry each = zip.getNextEntry(); each != null; each = zip.getNextEntry()) {
                names.add(each.getName());
                parts.put(each.getName(), zip.readAllBytes());
            }
        }
        assertThat(names.get(0)).isEqualTo("mimetype");
        assertThat(new String(parts.get("mimetype"), StandardCharsets.US_ASCII)).isEqualTo("image/openraster");
        assertThat(new String(parts.get("stack.xml"), StandardCharsets.UTF_8))
                .contains("w=\"240\" h=\"160\"", "data/refocused.png", "data/photo.png");
        assertThat(ImageIO.read(new ByteArrayInputStream(parts.get("Thumbnails/thumbnail.png")))
                        .getWidth())
                .isLessThanOrEqualTo(256);
        Map<String, Raster> images = new HashMap<>();
        for (String each : List.of("data/photo.png", "data/refocused.png", "mergedimage.png")) {
            images.put(
                    each,
                    ImageIO.read(new ByteArrayInputStream(parts.get(each))).getRaster());
        }
        assertThat(differenceOfComposed(
                        images.get("data/photo.png"),
                        images.get("data/refocused.png"),
                        images.get("mergedimage.png"),
                        white))
                .isLessThanOrEqualTo(1);
        BufferedImage flat =
                PictureWriter.encoded(layers.composed(), photo.origin().curve(), deep);
        assertThat(most(flat.getRaster(), images.get("mergedimage.png"), 1)).isZero();

        ByteArrayOutputStream tiff = new ByteArrayOutputStream();
        LayeredWriter.write(layers, photo.origin(), LayeredWriter.Format.TIFF_PAGES, Carried.ALL, tiff);
        try (ImageInputStream in = ImageIO.createImageInputStream(new ByteArrayInputStream(tiff.toByteArray()))) {
            ImageReader pages = ImageIO.getImageReadersByFormatName("tiff").next();
            pages.setInput(in);
            assertThat(pages.getNumImages(true)).isEqualTo(3);
            assertThat(differenceOfComposed(
                            pages.read(1).getRaster(),
                            pages.read(2).getRaster(),
                            pages.read(0).getRaster(),
                            white))
                    .isLessThanOrEqualTo(1);
        }
    }

    @ParameterizedTest
    @EnumSource(LayeredWriter.Format.class)
    void layersGoIntoTheWantedSpaceWithoutThePlace(LayeredWriter.Format format)
            throws IOException, InterruptedException {
        DecodedPicture photo = noted();
        Carried carried = new Carried(ColourSpace.DISPLAY_P3, false, "refocused for a test");
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        LayeredWriter.write(layers(photo), photo.origin(), format, carried, out);
        List<byte[]> pictures = new ArrayList<>();
        if (format == LayeredWriter.Format.OPENRASTER) {
            try (ZipInputStream zip = new ZipInputStream(new ByteArrayInputStream(out.toByteArray()))) {
                for (ZipEntry each = zip.getNextEntry(); each != null; each = zip.getNextEntry()) {
                    if (each.getName().endsWith(".png")) {
                        pictures.add(zip.readAllBytes());
                    }
                }
            }
            assertThat(pictures).hasSize(4);
        } else {
            pictures.add(out.toByteArray());
        }
        for (byte[] each : pictures) {
            Path file = folder.resolve("layer." + format.type().ending());
            Files.write(file, each);
            assertThat(exiftool(List.of("-a", "-s", "-G0"), file))
                    .contains("Display P3", "Ida Brandt", "refocused for a test")
                    .doesNotContain("Halden", "GPSLatitude");
        }
    }

    private static Plane slope() {
        Plane out = new Plane(new Size(160, 90));
        for (int i = 0; i < out.samples().length; i++) {
            out.samples()[i] = i / (out.samples().length - 1f);
        }
        return out;
    }

    @ParameterizedTest
    @EnumSource(DepthWriter.Format.class)
    void depthIsReadBack(DepthWriter.Format format) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        DepthWriter.write(slope(), format, out);
        Plane back = new DepthFileReader(reader).read(out.toByteArray(), slope().size());
        float allowed = format == DepthWriter.Format.PNG16 ? 1f / 65535 : 1e-6f;
        for (int i = 0; i < back.samples().length; i++) {
            assertThat(back.samples()[i]).isCloseTo(slope().samples()[i], within(allowed));
        }
    }

    @Test
    void depthGoesIntoAJpegBesideItsMetadata() throws IOException, InterruptedException {
        DecodedPicture photo = noted();
        byte[] jpeg = written(photo.picture(), photo.origin(), WriteSettings.of(PictureWriter.Format.JPEG, 0.9));
        Plane nearness = Resample.enlarge(slope(), photo.picture().size());
        byte[] file = StoredDepthWriter.store(jpeg, nearness);
        Plane back = new CameraDepthReader(reader)
                .read(file, photo.picture().size())
                .orElseThrow()
                .nearness();
        for (int i = 0; i < back.samples().length; i += 97) {
            assertThat(back.samples()[i]).isCloseTo(nearness.samples()[i], within(0.0001f));
        }
        Path there = folder.resolve("depth.jpg");
        Files.write(there, file);
        assertThat(exiftool(List.of("-a", "-s", "-G0"), there))
                .containsPattern("XMP.*Title +: Open day")
                .containsPattern("XMP.*Format +: RangeInverse")
                .containsPattern("EXIF.*Artist +: Ida Brandt")
                .doesNotContain("Warning");
        Process process = new ProcessBuilder("exiftool", "-b", "-XMP-GDepth:DepthImage", there.toString()).start();
        byte[] picture = process.getInputStream().readAllBytes();
        BufferedImage theirs = ImageIO.read(new ByteArrayInputStream(picture));
        assertThat(theirs.getRaster().getSample(0, 0, 0)).isCloseTo(65535, within(40));
        assertThat(Arrays.stream(new int[] {theirs.getWidth(), theirs.getHeight()}))
                .containsExactly(300, 200);
    }
}
