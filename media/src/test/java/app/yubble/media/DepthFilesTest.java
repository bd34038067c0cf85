package app.yubble.media;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import app.yubble.core.depth.DepthShapeException;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Size;
import app.yubble.media.depthfile.DepthFileReader;
import app.yubble.media.picture.PictureReader;
import app.yubble.media.picture.PictureWriter;
import app.yubble.media.picture.UnreadablePictureException;
import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.Test;

class DepthFilesTest {
    @Test
    void aGreyDepthFileKeepsSixteenBits() throws IOException {
        Plane plane = new Plane(300, 200);
        for (int i = 0; i < plane.samples().length; i++) {
            plane.samples()[i] = i / (float) plane.samples().length;
        }
        ByteArrayOutputStream file = new ByteArrayOutputStream();
        PictureWriter.writeGrey(plane, file);
        Plane back = new DepthFileReader(PictureReader.DEFAULT).read(file.toByteArray(), new Size(600, 400));
        for (int i = 0; i < plane.samples().length; i += 101) {
            assertThat(back.samples()[i]).isCloseTo(plane.samples()[i], within(1e-5f));
        }
    }

    @Test
    void aColourDepthFileIsTheMeanOfItsChannels() throws IOException {
        BufferedImage image = new BufferedImage(30, 20, BufferedImage.TYPE_INT_RGB);
        image.setRGB(4, 5, 0xff8000);
        ByteArrayOutputStream file = new ByteArrayOutputStream();
        ImageIO.write(image, "png", file);
        Plane back = new DepthFileReader(PictureReader.DEFAULT).read(file.toByteArray(), new Size(30, 20));
        assertThat(back.at(4, 5)).isCloseTo((255 + 128) / (3 * 255f), within(1e-5f));
        assertThat(back.at(0, 0)).isZero();
    }

    @Test
    void aDepthFileThatCannotBelongIsRefused() throws IOException {
        DepthFileReader reader = new DepthFileReader(PictureReader.DEFAULT);
        ByteArrayOutputStream file = new ByteArrayOutputStream();
        PictureWriter.writeGrey(Plane.filled(new Size(30, 20), 0.5f), file);
        assertThatThrownBy(() -> reader.read(file.toByteArray(), new Size(400, 400)))
                .isInstanceOf(DepthShapeException.class);
        assertThatThrownBy(() -> reader.read(file.toByteArray(), new Size(600, 400)))
                .isInstanceOf(UnreadablePictureException.class)
                .hasMessageContaining("equal");
    }
}
