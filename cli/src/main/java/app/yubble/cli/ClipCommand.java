package app.yubble.cli;

import app.yubble.core.clip.Ease;
import app.yubble.core.clip.SideBySide;
import app.yubble.core.focus.SharpBand;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Size;
import app.yubble.core.recipe.BandMark;
import app.yubble.core.recipe.Course;
import app.yubble.core.recipe.DepthChoice;
import app.yubble.core.recipe.Recipe;
import app.yubble.core.refocus.FrameLines;
import app.yubble.core.refocus.HeldPhoto;
import app.yubble.core.refocus.RefocusLine;
import app.yubble.core.refocus.StageCache;
import app.yubble.core.refocus.Still;
import app.yubble.core.subject.Quality;
import app.yubble.core.touchup.Touchup;
import app.yubble.media.clip.ClipFormat;
import app.yubble.media.clip.ClipJoiner;
import app.yubble.media.clip.ClipSheet;
import app.yubble.media.clip.DepthReel;
import app.yubble.media.clip.StretchWriter;
import app.yubble.media.picture.Camera;
import app.yubble.media.picture.Origin;
import app.yubble.media.picture.PictureWriter;
import java.io.IOException;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.concurrent.Callable;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** Runs a clip through a recipe. */
@Command(name = "clip", description = "Refocuses a clip.", mixinStandardHelpOptions = true)
final class ClipCommand implements Callable<Integer> {
    private static final double QUALITY = 0.85;
    /** Frames worked on at a time. */
    private static final int WORKERS = Math.max(1, Runtime.getRuntime().availableProcessors());

    @Spec
    private CommandSpec spec;

    @Parameters(paramLabel = "CLIP", description = "MP4, MOV, MKV or WebM")
    private Path clip;

    @Option(
            names = "-o",
            paramLabel = "OUT",
            required = true,
            description = "the ending says the format: mp4, webm, mkv (without loss), or a folder of pictures")
    private Path out;

    @Mixin
    private final RecipeOptions options = new RecipeOptions();

    @Option(
            names = "--depth",
            description = "auto, or depth of every frame, white = near: a folder or zip of pictures, or a film")
    private @Nullable String depth;

    @Option(names = "--depth-flip", description = "the depth has white far")
    private boolean depthFlip;

    @Mixin
    private final EngineOption engine = new EngineOption();

    @Option(names = "--quality", defaultValue = "best", description = "of estimated depth: draft or best")
    private String quality;

    @Option(
            names = "--pull",
            paramLabel = "F:D,F:D,...",
            description = "the middle of the band at frame F (from 1) is nearness D")
    private @Nullable String pull;

    @Option(
            names = "--follow",
            paramLabel = "X,Y[@F]",
            description = "the band keeps to what is at this pixel at frame F (from 1)")
    private @Nullable String follow;

    @Option(
            names = "--keep",
            paramLabel = "X,Y[@F]",
            description = "the subject at this pixel at frame F (from 1) stays sharp through the clip")
    private @Nullable String keep;

    @Option(
            names = "--ease",
            defaultValue = "smooth",
            description = "between the frames of --pull: smooth, straight, hold")
    private String ease;

    @Option(
            names = "--ladder",
            paramLabel = "X,Y[@F];X,Y[@F]...",
            description = "pixels of things at frame F (from 1) from near to far, as that of refocus")
    private @Nullable String ladder;

    @Option(names = "--from", description = "first frame, from 1")
    private @Nullable Integer from;

    @Option(names = "--to", description = "last frame")
    private @Nullable Integer to;

    @Option(names = "--max-size", description = "longest side of the output in pixels")
    private @Nullable Integer maxSize;

    @Override
    public Integer call() throws Exception {
        ClipFormat format = ClipFormat.ofName(out.toString()).orElse(null);
        if (format == null && out.getFileName().toString().contains(".") && !Files.isDirectory(out)) {
            throw new WrongUseException("-o: the ending of " + out + " must be mp4, webm, mkv, or none for a folder");
        }
        if (maxSize != null && maxSize < 2) {
            throw new WrongUseException("--max-size: must be at least 2, found " + maxSize);
        }
        Quality wanted = quality(quality);
        Recipe recipe = options.recipe();
        try (ClipWork work = ClipWork.open(clip, out, spec.commandLine().getErr())) {
            int first = frame(from, 1, "--from", work.sheet()) - 1;
            int end = frame(to, work.sheet().frames(), "--to", work.sheet());
            if (end <= first) {
                throw new WrongUseException("--to: must not be before --from");
            }
            boolean file = depth != null && !depth.equals("auto");
            List<Pulled> pulls = pulls(work.sheet());
            if (keep != null) {
                List<Touchup> all = new ArrayList<>(recipe.touchups());
                all.add(Kept.touchup(keep, work));
                recipe = recipe.withTouchups(all);
            }
            Followed followed = follow == null ? null : Followed.of(follow, work, options.bandWidth(recipe.band()));
            DepthReel reel = file
                    ? work.broughtIn(Path.of(Objects.requireNonNull(depth)))
                    : work.estimated(engine.estimator(), wanted);
            if (depth != null || depthFlip) {
                recipe = recipe.withDepth(DepthChoice.of(file ? DepthChoice.Source.FILE : DepthChoice.Source.ESTIMATED)
                        .withTrim(recipe.depth().trim().withFlip(depthFlip))
                        .withLadder(recipe.depth().ladder()));
            }
            if (ladder != null) {
                recipe = recipe.withDepth(recipe.depth().withLadder(Rungs.ofClip(ladder, work.sheet(), first)));
            }
            if (recipe.depth().source() == DepthChoice.Source.FILE && !file) {
                throw new WrongUseException("--depth: the recipe takes depth from a file; name it here");
            }
            recipe = followed == null
                    ? recipe
                    : recipe.withFollows(List.copyOf(followed.tracks().keySet()));
            Map<String, Plane> masks = options.masks(recipe, work.sheet().info().size());
            Map<Double, Still> moments = Rungs.moments(recipe.depth().ladder(), work, reel);
            HeldPhoto begins = ClipWork.still(work.full().frame(first), reel, first, masks, Kept.NOTHING, moments);
            recipe = withMarks(withOptions(recipe, begins), pulls, work.sheet());
            if (followed == null && !recipe.follows().isEmpty()) {
                followed = Followed.of(recipe.follows(), work);
            }
            Course course = followed == null ? recipe : followed.course(recipe, reel, work, moments);
            Kept kept = Kept.of(recipe, work, reel);
            FrameLines lines = new FrameLines(recipe.depth());
            Size size = maxSize == null
                    ? work.sheet().info().size()
                    : work.sheet().info().size().fitting(maxSize);
            render(work, size, first, end, format, (frame, picture) -> {
                HeldPhoto still;
                synchronized (reel) {
                    still = ClipWork.still(picture, reel, frame, masks, kept, moments);
                }
                return options.render(
                        lines.of(still), still, course.at(work.sheet().moment(frame)), size);
            });
        }
        return 0;
    }

    static Quality quality(String text) {
        return switch (text) {
            case "draft" -> Quality.DRAFT;
            case "best" -> Quality.BEST;
            default -> throw new WrongUseException("--quality: must be draft or best, found " + text);
        };
    }

    static int frame(@Nullable Integer wanted, int otherwise, String option, ClipSheet sheet) {
        int frame = wanted == null ? otherwise : wanted;
        if (frame < 1 || frame > sheet.frames()) {
            throw new WrongUseException(option + ": the clip has frames 1 to " + sheet.frames() + ", found " + frame);
        }
        return frame;
    }

    /** The middle of the band at a frame, from 0. */
    private record Pulled(int frame, double nearness) {}

    private List<Pulled> pulls(ClipSheet sheet) {
        List<Pulled> pulls = new ArrayList<>();
        if (pull == null) {
            return pulls;
        }
        for (String each : pull.split(",", -1)) {
            String[] sides = each.split(":", 2);
            try {
                double nearness = Double.parseDouble(sides.length == 2 ? sides[1] : "");
                int number = frame(Integer.parseInt(sides[0].strip()), 1, "--pull", sheet);
                if (!(nearness >= 0 && nearness <= 1)) {
                    throw new WrongUseException("--pull: nearness must be in 0..1, found " + sides[1]);
                }
                pulls.add(new Pulled(number - 1, nearness));
            } catch (NumberFormatException fault) {
                throw new WrongUseException("--pull: \"" + each + "\" must be FRAME:NEARNESS, such as 24:0.62");
            }
        }
        return pulls;
    }

    private Ease ease() {
        return switch (ease) {
            case "smooth" -> Ease.SMOOTH;
            case "straight" -> Ease.STRAIGHT;
            case "hold" -> Ease.HOLD;
            default -> throw new WrongUseException("--ease: must be smooth, straight or hold, found " + ease);
        };
    }

    private Recipe withMarks(Recipe recipe, List<Pulled> pulls, ClipSheet sheet) {
        if (pulls.isEmpty()) {
            return recipe;
        }
        SharpBand usual = recipe.band();
        List<BandMark> marks = new ArrayList<>();
        for (Pulled each : pulls) {
            SharpBand there = SharpBand.around(each.nearness(), options.bandWidth(usual), 0);
            SharpBand band = new SharpBand(
                    there.near(),
                    there.far(),
                    usual.nearFalloff(),
                    usual.farFalloff(),
                    usual.tiltAcross(),
                    usual.tiltDown());
            marks.add(new BandMark(sheet.micros(each.frame()) / 1e6, ease(), band));
        }
        try {
            return recipe.withMarks(recipe.marks().withBand(marks));
        } catch (IllegalArgumentException fault) {
            throw new WrongUseException("--pull: " + fault.getMessage());
        }
    }

    private Recipe withOptions(Recipe recipe, HeldPhoto still) {
        Plane nearness = new RefocusLine(StageCache.keepingAll()).nearness(still, recipe.depth(), still.size());
        return options.withOptions(recipe, still, still.full(), nearness, Camera.UNKNOWN);
    }

    private void render(
            ClipWork work,
            Size size,
            int first,
            int end,
            @Nullable ClipFormat format,
            SideBySide.Work<Picture> rendering)
            throws IOException {
        Output output = format == null ? new Pictures(work.sheet(), size) : new Film(work, format, size, first, end);
        var progress = work.told("rendering", 0, 1);
        try (output) {
            SideBySide.run(
                    (a, b, taker) -> work.full().each(a, b, taker),
                    first,
                    end,
                    WORKERS,
                    rendering,
                    (frame, picture) -> {
                        output.add(frame, picture);
                        progress.at((frame + 1.0 - first) / (end - first));
                    });
            output.finish();
        }
    }

    /** Where frames go. */
    private interface Output extends AutoCloseable {
        void add(int frame, Picture picture);

        void finish() throws IOException;

        @Override
        void close();
    }

    private final class Pictures implements Output {
        private final Path partial;
        private final Origin origin;

        Pictures(ClipSheet sheet, Size size) throws IOException {
            partial = Files.createTempDirectory(out.toAbsolutePath().getParent(), ".yubble-");
            origin = new Origin("PNG", size, null, sheet.info().colours().curve(), Camera.UNKNOWN);
        }

        @Override
        public void add(int frame, Picture picture) {
            Path file = partial.resolve(name(frame));
            try (OutputStream to = Files.newOutputStream(file)) {
                PictureWriter.write(picture, origin, PictureWriter.Format.PNG16, 1, to);
            } catch (IOException fault) {
                throw new UncheckedIOException(file + " could not be written", fault);
            }
        }

        @Override
        public void finish() throws IOException {
            moveAll(partial, out);
        }

        @Override
        public void close() {
            ClipWork.remove(partial);
        }
    }

    /** As a picture of a sequence is called, from 1. */
    static String name(int frame) {
        return String.format(Locale.ROOT, "frame-%04d.png", frame + 1);
    }

    /** What is in a finished folder, to where it was wanted. */
    static void moveAll(Path partial, Path out) throws IOException {
        Files.createDirectories(out);
        try (var all = Files.list(partial)) {
            for (Path each : all.toList()) {
                Files.move(each, out.resolve(each.getFileName()), StandardCopyOption.REPLACE_EXISTING);
            }
        }
    }

    private final class Film implements Output {
        private final ClipWork work;
        private final ClipFormat format;
        private final int first;
        private final int end;
        private final Path stretch;
        private final StretchWriter writer;

        Film(ClipWork work, ClipFormat format, Size size, int first, int end) {
            this.work = work;
            this.format = format;
            this.first = first;
            this.end = end;
            stretch = work.temporary("stretch");
            writer = StretchWriter.open(stretch, format, QUALITY, work.sheet().info(), size);
        }

        @Override
        public void add(int frame, Picture picture) {
            ClipSheet sheet = work.sheet();
            writer.add(picture, sheet.micros(frame) - sheet.micros(first), sheet.lastsMicros(frame));
        }

        @Override
        public void finish() throws IOException {
            writer.finish();
            ClipSheet sheet = work.sheet();
            long micros = sheet.shownMicros(first, end);
            Path whole = work.temporary("whole");
            ClipJoiner.join(
                    List.of(new ClipJoiner.Stretch(stretch, micros)),
                    work.temporary("list"),
                    sheet.info(),
                    new ClipJoiner.Sound(work.clip(), sheet.info(), sheet.micros(first), micros),
                    format,
                    whole);
            Files.move(whole, out, StandardCopyOption.REPLACE_EXISTING);
        }

        @Override
        public void close() {
            writer.close();
        }
    }
}
