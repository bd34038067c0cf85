package app.yubble.cli;

import app.yubble.core.depth.DepthEdges;
import app.yubble.core.depth.DepthEstimate;
import app.yubble.core.ladder.Rung;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Progress;
import app.yubble.core.raster.Size;
import app.yubble.core.recipe.DepthChoice;
import app.yubble.core.refocus.HeldPhoto;
import app.yubble.core.refocus.RefocusLine;
import app.yubble.core.refocus.StageCache;
import app.yubble.core.subject.MatteRefiner;
import app.yubble.core.subject.Quality;
import app.yubble.media.clip.ClipFormat;
import app.yubble.media.clip.ClipJoiner;
import app.yubble.media.clip.ClipSheet;
import app.yubble.media.clip.DepthReel;
import app.yubble.media.clip.StretchWriter;
import app.yubble.media.picture.PictureWriter;
import java.io.IOException;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
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

/** Writes the estimated depth of a photo, same size, 16-bit grey PNG, white near. */
@Command(
        name = "depth",
        description = "Writes the estimated depth of a photo or a clip.",
        mixinStandardHelpOptions = true)
final class DepthCommand implements Callable<Integer> {
    @Spec
    private CommandSpec spec;

    @Parameters(paramLabel = "PHOTO|CLIP", description = "JPEG, PNG, TIFF, WebP, MP4, MOV, MKV or WebM")
    private Path photo;

    @Option(
            names = "-o",
            paramLabel = "OUT",
            required = true,
            description = "16-bit grey PNG, white = near; of a clip a folder of them or a film that ends in mkv")
    private Path out;

    @Mixin
    private final EngineOption engine = new EngineOption();

    @Option(
            names = "--matte",
            paramLabel = "OUT.png",
            description = "the subject matte, 16-bit grey PNG, white = subject")
    private @Nullable Path matte;

    @Option(
            names = "--ladder",
            paramLabel = "X,Y;X,Y...",
            description = "of a photo: pixels of things from near to far, as that of refocus")
    private @Nullable String ladder;

    @Option(names = "--quality", defaultValue = "best", description = "of a clip's depth: draft or best")
    private String quality;

    @Override
    public Integer call() throws Exception {
        if (ClipWork.isClip(photo)) {
            return clip();
        }
        var estimator = engine.estimator();
        Picture picture = Inputs.picture(photo).picture();
        DepthEstimate estimate = estimator.estimate(picture, Quality.BEST, Progress.NONE);
        Plane fine = matte == null ? null : MatteRefiner.refine(matteOf(estimate), picture);
        List<Rung> rungs = ladder == null ? List.of() : Rungs.parse(ladder, picture.size(), Rungs::ofPhoto);
        Plane nearness = new RefocusLine(StageCache.keepingAll())
                .nearness(
                        new HeldPhoto(picture, estimate, Map.of()),
                        DepthChoice.ESTIMATE.withLadder(rungs),
                        picture.size());
        Inputs.write(out, to -> PictureWriter.writeGrey(nearness, to));
        if (matte != null && fine != null) {
            Inputs.write(matte, to -> PictureWriter.writeGrey(fine, to));
        }
        return 0;
    }

    /** A map of every frame: pictures in a folder, or a film. */
    private int clip() throws IOException {
        if (matte != null) {
            throw new WrongUseException("--matte: is for photos");
        }
        if (ladder != null) {
            throw new WrongUseException("--ladder: depth of a clip takes none, a clip that is refocused does");
        }
        boolean film = out.toString().toLowerCase(Locale.ROOT).endsWith(".mkv");
        if (!film && out.getFileName().toString().contains(".") && !Files.isDirectory(out)) {
            throw new WrongUseException("-o: depth of a clip goes into a folder or a file that ends in mkv");
        }
        var estimator = engine.estimator();
        Quality wanted = ClipCommand.quality(quality);
        try (ClipWork work = ClipWork.open(photo, out, spec.commandLine().getErr())) {
            DepthReel reel = work.estimated(estimator, wanted);
            Path partial = work.temporary("maps");
            Path whole = work.temporary("whole");
            Files.createDirectories(partial);
            ClipSheet sheet = work.sheet();
            Size size = sheet.info().size();
            try (StretchWriter writer =
                    film ? StretchWriter.openDepth(work.temporary("stretch"), true, sheet.info(), size) : null) {
                work.full().each(0, sheet.frames(), (frame, picture) -> {
                    Plane nearness = DepthEdges.follow(Objects.requireNonNull(reel.at(frame)), picture, 1);
                    if (writer == null) {
                        write(partial.resolve(ClipCommand.name(frame)), nearness);
                    } else {
                        writer.add(nearness, sheet.micros(frame), sheet.lastsMicros(frame));
                    }
                });
                if (writer == null) {
                    ClipCommand.moveAll(partial, out);
                } else {
                    writer.finish();
                    ClipJoiner.joinDepth(
                            List.of(new ClipJoiner.Stretch(work.temporary("stretch"), sheet.totalMicros())),
                            work.temporary("list"),
                            sheet.info(),
                            ClipFormat.FFV1,
                            whole);
                    Files.move(whole, out, StandardCopyOption.REPLACE_EXISTING);
                }
            }
        }
        return 0;
    }

    private static void write(Path file, Plane nearness) {
        try (OutputStream to = Files.newOutputStream(file)) {
            PictureWriter.writeGrey(nearness, to);
        } catch (IOException fault) {
            throw new UncheckedIOException(file + " could not be written", fault);
        }
    }

    private Plane matteOf(DepthEstimate estimate) {
        if (estimate.subject() == null) {
            throw new WrongUseException("--matte: the engine \"" + engine + "\" does not look for a subject");
        }
        return estimate.subject().matte();
    }
}
