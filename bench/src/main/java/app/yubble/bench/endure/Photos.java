package app.yubble.bench.endure;

import java.awt.Color;
import java.awt.Graphics2D;
import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import javax.imageio.ImageIO;

/** Pictures that the trials bring in. */
final class Photos {
    private static final int MARKER = 0xff;
    private static final int START_OF_IMAGE = 0xd8;

    private Photos() {}

    /** A sky above a striped ground. */
    static byte[] photo(int width, int height) {
        BufferedImage image = new BufferedImage(width, height, BufferedImage.TYPE_INT_RGB);
        Graphics2D g = image.createGraphics();
        g.setColor(new Color(150, 190, 230));
        g.fillRect(0, 0, width, height * 2 / 5);
        for (int y = height * 2 / 5; y < height; y += 4) {
            g.setColor(y % 8 < 4 ? new Color(60, 90, 40) : new Color(110, 120, 60));
            g.fillRect(0, y, width, 4);
        }
        g.dispose();
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try {
            ImageIO.write(image, "jpg", out);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return out.toByteArray();
    }

    static boolean isJpeg(byte[] file) {
        return file.length > 2 && (file[0] & 0xff) == MARKER && (file[1] & 0xff) == START_OF_IMAGE;
    }
}
