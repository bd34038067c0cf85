package app.yubble.bench;

import app.yubble.core.depth.DepthEdges;
import app.yubble.core.depth.DepthEstimate;
import app.yubble.core.focus.DefocusField;
import app.yubble.core.focus.Gain;
import app.yubble.core.focus.SharpBand;
import app.yubble.core.lens.Disc;
import app.yubble.core.lens.Glints;
import app.yubble.core.lens.LensRender;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Progress;
import app.yubble.core.raster.Resample;
import app.yubble.core.raster.Size;
import app.yubble.media.depthfile.DepthFileReader;
import app.yubble.media.picture.Origin;
import app.yubble.media.picture.PictureReader;
import app.yubble.media.picture.PictureWriter;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.concurrent.TimeUnit;

/**
 * Times of the lens on a demo photo at 1, 6 and 24 megapixels and radius 8, 30 and 120, beside ffmpeg's {@code varblur} as a
 * whole process on the same picture and map: a box of varying size without occlusion, the cheapest thing at hand.
 */
final class LensTimes {
    private static final int[] SIDES = {1224, 3000, 6000};
    private static final int[] RADII = {8, 30, 120};
    private static final int RUNS = 5;
    /** The option of {@code varblur} goes no higher. */
    private static final int MOST_BOX = 254;

    private LensTimes() {}

    /** @param varblurMillis median of whole processes; 0 when ffmpeg is not there */
    record Time(double megapixels, int radius, double millis, double millisPerMegapixel, double varblurMillis) {}

    static List<Time> measured() throws IOException {
        Path demo = Path.of(System.getProperty("demo", "demo"));
        Picture full =
                PictureReader.DEFAULT.read(demo.resolve("photos/crossing.jpg")).picture();
        Plane map = new DepthFileReader(PictureReader.DEFAULT)
                .read(Files.readAllBytes(demo.resolve("truth/crossing-depth.png")), full.size());
        Path folder = Files.createTempDirectory("lens-times");
        List<Time> times = new ArrayList<>();
        System.out.printf("%n%-12s%8s%12s%12s%14s%n", "megapixels", "radius", "lens ms", "ms per MP", "varblur ms");
        for (int side : SIDES) {
            Size size = new Size(side, side * 2 / 3);
            Picture picture = Resample.toSize(full, size);
            Plane nearness = DepthEdges.follow(DepthEstimate.of(map), picture, 0);
            write(picture, nearness, folder);
            for (int radius : RADII) {
                Time time = time(picture, nearness, radius, folder);
                times.add(time);
                System.out.printf(
                        Locale.ROOT,
                        "%-12.1f%8d%12.0f%12.0f%14.0f%n",
                        time.megapixels(),
                        radius,
                        time.millis(),
                        time.millisPerMegapixel(),
                        time.varblurMillis());
            }
        }
        for (String name : List.of("photo.jpg", "map.png", "out.jpg")) {
            Files.deleteIfExists(folder.resolve(name));
        }
        Files.delete(folder);
        return times;
    }

    private static void write(Picture picture, Plane nearness, Path folder) throws IOException {
        try (OutputStream out = Files.newOutputStream(folder.resolve("photo.jpg"))) {
            PictureWriter.write(picture, Origin.srgb(picture.size()), PictureWriter.Format.JPEG, 0.94, out);
        }
        try (OutputStream out = Files.newOutputStream(folder.resolve("map.png"))) {
            PictureWriter.writeGrey(nearness, out);
        }
    }

    // Sharp near the camera: what is far has the largest radius.
    private static Time time(Picture picture, Plane nearness, int radius, Path folder) throws IOException {
        Plane field = DefocusField.of(nearness, SharpBand.around(0.9, 0.02, 0), Gain.EVEN, radius / 0.89);
        long[] nanos = new long[RUNS];
        for (int i = 0; i < RUNS; i++) {
            long start = System.nanoTime();
            LensRender.render(picture, field, Disc.ROUND, Glints.NONE, Progress.NONE);
            nanos[i] = System.nanoTime() - start;
        }
        double megapixels = picture.size().pixels() / 1e6;
        double millis = median(nanos);
        return new Time(megapixels, radius, millis, millis / megapixels, varblur(radius, folder));
    }

    private static double median(long[] nanos) {
        Arrays.sort(nanos);
        return nanos[nanos.length / 2] / 1e6;
    }

    private static double varblur(int radius, Path folder) throws IOException {
        long[] nanos = new long[RUNS];
        for (int i = 0; i < RUNS; i++) {
            long start = System.nanoTime();
            Process process;
            try {
                process = new ProcessBuilder(
                                "ffmpeg",
                                "-y",
                                "-v",
                                "error",
                                "-i",
                                "photo.jpg",
                                "-i",
                                "map.png",
                                "-lavfi",
                                "[0:v]format=gbrp[a];[1:v]format=gray[b];[a][b]varblur=min_r=0:max_r="
                                        + Math.min(MOST_BOX, radius),
                                "out.jpg")
                        .directory(folder.toFile())
                        .redirectErrorStream(true)
                        .redirectOutput(ProcessBuilder.Redirect.DISCARD)
                        .start();
            } catch (IOException notInstalled) {
                return 0;
            }
            try {
                if (!process.waitFor(60, TimeUnit.SECONDS) || process.exitValue() != 0) {
                    process.destroyForcibly();
                    return 0;
                }
            } catch (InterruptedException stopped) {
                process.destroyForcibly();
                Thread.currentThread().interrupt();
                return 0;
            }
            nanos[i] = System.nanoTime() - start;
        }
        return median(nanos);
    }
}
