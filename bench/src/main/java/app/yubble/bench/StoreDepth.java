package app.yubble.bench;

import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Resample;
import app.yubble.core.raster.Size;
import app.yubble.media.depthfile.DepthFileReader;
import app.yubble.media.depthfile.StoredDepthWriter;
import app.yubble.media.picture.PictureReader;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;

/**
 * Makes the demo photo with stored depth: {@code PHOTO.jpg DEPTH.png NEAR OUT.jpg}, where NEAR is the distance in metres at
 * nearness 1. As cameras do, the depth is stored at a quarter of the photo's size.
 */
public final class StoreDepth {
    private static final double FAR = 1000;
    private static final int SMALLER = 4;

    private StoreDepth() {}

    public static void main(String[] arguments) throws IOException {
        byte[] photo = Files.readAllBytes(Path.of(arguments[0]));
        Size size = PictureReader.DEFAULT.inspect(photo).size();
        Plane exact = new DepthFileReader(PictureReader.DEFAULT).read(Files.readAllBytes(Path.of(arguments[1])), size);
        Plane stored = Resample.toSize(exact, size.fitting(size.longSide() / SMALLER));
        double near = Double.parseDouble(arguments[2]);
        Files.write(Path.of(arguments[3]), StoredDepthWriter.store(photo, stored, near, FAR));
    }
}
