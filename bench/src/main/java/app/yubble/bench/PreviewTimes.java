package app.yubble.bench;

import app.yubble.core.focus.SharpBand;
import app.yubble.core.lens.Aperture;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Progress;
import app.yubble.core.raster.Region;
import app.yubble.core.raster.Resample;
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
import app.yubble.media.picture.Origin;
import app.yubble.media.picture.PictureReader;
import app.yubble.media.picture.PictureWriter;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;

/**
 * Times previews from the recipe to the bytes that are sent, and tells where their time goes: demo photos fitted to the Bench, as a draft
 * while something is dragged, and at 100 % of 24 megapixels, while the band and the aperture are moved as by a hand.
 */
final class PreviewTimes {
    private static final int SIDE = 1120;
    private static final int DRAFT = 640;
    /** Longer side of 24 megapixels. */
    private static final int LARGE = 6000;
    /** What is seen of them at 100 %. */
    private static final Region WINDOW = new Region(2200, 1600, 1280, 800);

    private static final int WARM_UP = 20;
    private static final int ROUNDS = 30;
    private static final double QUALITY = 0.9;

    private PreviewTimes() {}

    /** Where what is blurred lies. */
    private enum Blurred {
        BEHIND("behind", 0.85),
        BOTH("both sides", 0.5);

        private final String title;
        private final double centre;

        Blurred(String title, double centre) {
            this.title = title;
            this.centre = centre;
        }
    }

    /** One way of looking at a photo. */
    private static final class Looking {
        private final DecodedPicture photo;
        private final HeldPhoto scene;
        private final RefocusLine line = new RefocusLine(StageCache.keepingAll());
        private final Viewer viewer = new Viewer();
        private final View view;
        private final Blurred blurred;
        private int moves;

        Looking(DecodedPicture photo, HeldPhoto scene, View view, Blurred blurred) {
            this.photo = photo;
            this.scene = scene;
            this.view = view;
            this.blurred = blurred;
        }

        private void move() {
            double turn = 2 * Math.PI * moves++ / 40;
            Recipe recipe = Recipe.INITIAL
                    .withDepth(DepthChoice.of(DepthChoice.Source.FILE))
                    .withBand(SharpBand.around(blurred.centre + 0.1 * Math.sin(turn), 0.1, 0.05))
                    .withAperture(Aperture.DEFAULT.withFree(40 + 15 * Math.cos(turn)));
            Picture result = line.render(viewer, scene, recipe, view, Progress.NONE);
            Origin origin = photo.origin().withSize(result.size());
            try {
                PictureWriter.write(
                        result, origin, PictureWriter.Format.JPEG, QUALITY, new ByteArrayOutputStream(1 << 18));
            } catch (IOException fault) {
                throw new UncheckedIOException(fault);
            }
        }

        private double timed() {
            long start = System.nanoTime();
            move();
            return (System.nanoTime() - start) / 1e6;
        }

        private double used() {
            double before = Profile.usedMillis();
            move();
            return Profile.usedMillis() - before;
        }
    }

    /** @param arguments only what has the first of them in its name; everything without one */
    public static void main(String[] arguments) throws IOException {
        String wanted = arguments.length == 0 ? "" : arguments[0];
        System.out.printf("%-30s%8s%8s%8s%8s%8s%n", "milliseconds", "first", "least", "median", "95th", "core");
        for (String name : List.of("crossing", "dusk", "figurine")) {
            DecodedPicture photo = PictureReader.DEFAULT.read(Path.of("demo/photos/" + name + ".jpg"));
            Size size = photo.picture().size();
            for (Blurred each : Blurred.values()) {
                time(wanted, name, photo, View.of(size.fitting(DRAFT)), each);
                time(wanted, name, photo, View.of(size.fitting(SIDE)), each);
            }
        }
        DecodedPicture photo = PictureReader.DEFAULT.read(Path.of("demo/photos/crossing.jpg"));
        Size large = new Size(LARGE, LARGE * 2 / 3);
        for (Blurred each : Blurred.values()) {
            time(wanted, "crossing", photo, new View(large, WINDOW), each);
        }
    }

    private static void time(String wanted, String name, DecodedPicture photo, View view, Blurred blurred)
            throws IOException {
        boolean whole = view.part().equals(Region.all(view.size()));
        String what = name + " " + (whole ? view.size() : "100 %") + ", " + blurred.title;
        if (!what.contains(wanted)) {
            return;
        }
        Picture full = whole ? photo.picture() : Resample.toSize(photo.picture(), view.size());
        byte[] depth = Files.readAllBytes(Path.of("demo/truth/" + name + "-depth.png"));
        Plane nearness = new DepthFileReader(PictureReader.DEFAULT).read(depth, full.size());
        Looking looking = new Looking(photo, HeldPhoto.of(full, nearness), view, blurred);
        double first = looking.timed();
        for (int i = 0; i < WARM_UP; i++) {
            looking.move();
        }
        double[] times = new double[ROUNDS];
        Profile profile = Profile.of(() -> Arrays.setAll(times, round -> looking.timed()));
        double[] used = new double[ROUNDS];
        Arrays.setAll(used, round -> looking.used());
        Arrays.sort(times);
        Arrays.sort(used);
        double core = used[ROUNDS / 2];
        System.out.printf(
                Locale.ROOT,
                "%-30s%8.0f%8.0f%8.0f%8.0f%8.0f   %s%n",
                what,
                first,
                times[0],
                times[ROUNDS / 2],
                times[ROUNDS * 95 / 100],
                core,
                parts(profile, core));
    }

    /** Core milliseconds of a preview by part, those below one left out. */
    private static String parts(Profile profile, double core) {
        List<String> out = new ArrayList<>();
        profile.shares().forEach((part, share) -> {
            double millis = share * core;
            if (millis >= 0.5) {
                out.add(String.format(Locale.ROOT, "%s %.0f", part.title(), millis));
            }
        });
        return String.join(", ", out);
    }
}
