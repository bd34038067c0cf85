package app.yubble.media.picture;

import static org.assertj.core.api.Assertions.assertThat;

import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Region;
import app.yubble.core.raster.Resample;
import app.yubble.core.raster.Size;
import java.awt.image.BufferedImage;
import java.awt.image.RenderedImage;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.util.List;
import java.util.Random;
import javax.imageio.ImageIO;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class CodedImageTest {
    private static final Size SIZE = new Size(70, 333);
    private static final ToneCurve CURVE = Origin.srgb(SIZE).curve();

    private static Picture photo() {
        Picture out = Picture.blank(SIZE);
        Random random = new Random(5);
        out.planes().forEach(plane -> {
            for (int i = 0; i < plane.samples().length; i++) {
                plane.samples()[i] = random.nextFloat();
            }
        });
        return out;
    }

    /** In strips of 128 rows, from parts that do not end where strips do. */
    private static CodedImage inStrips(Picture photo, boolean deep) {
        CodedImage out = new CodedImage(SIZE, deep, 128);
        for (Region part : List.of(
                new Region(0, 0, 30, 200),
                new Region(30, 0, 40, 200),
                new Region(0, 200, 30, 133),
                new Region(30, 200, 40, 133))) {
            out.put(Resample.crop(photo, part), CURVE, part.x(), part.y());
        }
        return out;
    }

    private static void assertSame(BufferedImage image, BufferedImage whole, int top) {
        assertThat(image.getRaster().getPixels(0, 0, image.getWidth(), image.getHeight(), (int[]) null))
                .isEqualTo(whole.getRaster().getPixels(0, top, image.getWidth(), image.getHeight(), (int[]) null));
    }

    @ParameterizedTest
    @ValueSource(booleans = {false, true})
    void stripsHoldWhatOneImageHolds(boolean deep) {
        Picture photo = photo();
        CodedImage image = inStrips(photo, deep);
        BufferedImage whole = CodedImage.of(photo, CURVE, deep);
        assertSame(image.rows(0, 128), whole, 0);
        assertSame(image.rows(256, 77), whole, 256);
        // Over the border of two strips.
        assertSame(image.rows(100, 60), whole, 100);
    }

    private static byte[] png(RenderedImage image) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        PngWriter.write(image, Origin.srgb(SIZE), out);
        return out.toByteArray();
    }

    @ParameterizedTest
    @ValueSource(booleans = {false, true})
    void filesAreTheSame(boolean deep) throws IOException {
        Picture photo = photo();
        CodedImage image = inStrips(photo, deep);
        BufferedImage whole = CodedImage.of(photo, CURVE, deep);
        assertThat(png(image)).isEqualTo(png(whole));
        ByteArrayOutputStream tiff = new ByteArrayOutputStream();
        TiffWriter.write(List.of(image), Origin.srgb(SIZE), tiff);
        BufferedImage back = ImageIO.read(new ByteArrayInputStream(tiff.toByteArray()));
        assertThat(back.getRaster().getPixels(0, 0, SIZE.width(), SIZE.height(), (int[]) null))
                .isEqualTo(whole.getRaster().getPixels(0, 0, SIZE.width(), SIZE.height(), (int[]) null));
        if (!deep) {
            assertThat(StripedJpeg.of(image, 0.9, false)).isEqualTo(StripedJpeg.of(whole, 0.9, false));
        }
    }
}
