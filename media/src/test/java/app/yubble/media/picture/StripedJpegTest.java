package app.yubble.media.picture;

import static org.assertj.core.api.Assertions.assertThat;

import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import javax.imageio.ImageIO;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class StripedJpegTest {
    /** Whole strips, parts of blocks at the right and at the bottom, one row, and more than eight restarts. */
    @ParameterizedTest
    @CsvSource({"64,128", "61,129", "8,1", "13,400", "40,1500"})
    void whatIsWrittenInStripsIsReadAsOnePicture(int width, int height) throws IOException {
        BufferedImage image = new BufferedImage(width, height, BufferedImage.TYPE_3BYTE_BGR);
        for (int y = 0; y < height; y++) {
            for (int x = 0; x < width; x++) {
                image.setRGB(x, y, (x * 255 / width) << 16 | (y * 255 / height) << 8 | ((x + y) % 120 + 60));
            }
        }
        BufferedImage read = ImageIO.read(new ByteArrayInputStream(StripedJpeg.of(image, 0.97, false)));
        assertThat(read.getWidth()).isEqualTo(width);
        assertThat(read.getHeight()).isEqualTo(height);
        long apart = 0;
        for (int y = 0; y < height; y++) {
            for (int x = 0; x < width; x++) {
                for (int shift = 0; shift <= 16; shift += 8) {
                    apart += Math.abs((read.getRGB(x, y) >> shift & 255) - (image.getRGB(x, y) >> shift & 255));
                }
            }
        }
        assertThat((double) apart / (3L * width * height)).isLessThan(2.5);
    }
}
