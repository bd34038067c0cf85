package app.yubble.bench;

import app.yubble.core.focus.SharpBand;
import app.yubble.core.lens.Aperture;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Progress;
import app.yubble.core.raster.Size;
import app.yubble.core.recipe.DepthChoice;
import app.yubble.core.recipe.Recipe;
import app.yubble.core.refocus.HeldPhoto;
import app.yubble.core.refocus.RefocusLine;
import app.yubble.core.refocus.StageCache;
import app.yubble.core.refocus.View;
import app.yubble.core.refocus.Viewer;
import app.yubble.media.depthfile.DepthFileReader;
import app.yubble.media.picture.DecodedPicture;
import app.yubble.media.picture.PictureReader;
import app.yubble.media.picture.PictureWriter;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;

/**
 * Times previews at the size at which they are fitted to the Bench, from the recipe to the bytes that are sent: the band and the
 * aperture of a demo photo are moved as by a hand, with blur in front of the band and behind it.
 */
final class PreviewTimes {
    private static final int SIDE = 1120;
    private static final int WARM_UP = 40;
    private static final int ROUNDS = 80;
    private static final double QUALITY = 0.9;

    private PreviewTimes() {}

    public static void main(String[] arguments) throws IOException {
        for (String name : new String[] {"figurine", "crossing"}) {
            DecodedPicture photo = PictureReader.DEFAULT.read(Path.of("demo/photos/" + name + ".jpg"));
            byte[] depth = Files.readAllBytes(Path.of("demo/truth/" + name + "-depth.png"));
            Picture full = photo.picture();
            HeldPhoto scene = HeldPhoto.of(full, new DepthFileReader(PictureReader.DEFAULT).read(depth, full.size()));
            RefocusLine line = new RefocusLine(StageCache.keepingAll());
            Viewer viewer = new Viewer();
            Size size = full.size().fitting(SIDE);
            double[] times = new double[ROUNDS];
            for (int i = -WARM_UP; i < ROUNDS; i++) {
                double turn = 2 * Math.PI * i / 40;
                Recipe recipe = Recipe.INITIAL
                        .withDepth(DepthChoice.of(DepthChoice.Source.FILE))
                        .withBand(SharpBand.around(0.5 + 0.15 * Math.sin(turn), 0.1, 0.05))
                        .withAperture(Aperture.DEFAULT.withFree(40 + 15 * Math.cos(turn)));
                long start = System.nanoTime();
                Picture result = line.render(viewer, scene, recipe, View.of(size), Progress.NONE);
                PictureWriter.write(
                        result,
                        photo.origin().withSize(size),
                        PictureWriter.Format.JPEG,
                        QUALITY,
                        new ByteArrayOutputStream(1 << 18));
                if (i >= 0) {
                    times[i] = (System.nanoTime() - start) / 1e6;
                }
            }
            Arrays.sort(times);
            System.out.printf(
                    "%-10s %s  median %.0f ms  95th %.0f ms%n",
                    name, size, times[ROUNDS / 2], times[ROUNDS * 95 / 100]);
        }
    }
}
