package app.yubble.cli;

import app.yubble.core.depth.DepthEdges;
import app.yubble.core.depth.DepthEstimate;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Progress;
import app.yubble.core.subject.MatteRefiner;
import app.yubble.core.subject.Quality;
import app.yubble.media.picture.PictureWriter;
import java.nio.file.Path;
import java.util.concurrent.Callable;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Writes the estimated depth of a photo, same size, 16-bit grey PNG, white near. */
@Command(name = "depth", description = "Writes the estimated depth of a photo.", mixinStandardHelpOptions = true)
final class DepthCommand implements Callable<Integer> {
    @Parameters(paramLabel = "PHOTO", description = "JPEG, PNG, TIFF or WebP")
    private Path photo;

    @Option(names = "-o", paramLabel = "OUT.png", required = true, description = "16-bit grey PNG, white = near")
    private Path out;

    @Option(
            names = "--engine",
            defaultValue = "auto",
            completionCandidates = Engines.Names.class,
            description = Engines.HELP)
    private String engine;

    @Option(
            names = "--matte",
            paramLabel = "OUT.png",
            description = "the subject matte, 16-bit grey PNG, white = subject")
    private @Nullable Path matte;

    @Override
    public Integer call() throws Exception {
        var estimator = Engines.named(engine);
        Picture picture = Inputs.picture(photo).picture();
        DepthEstimate estimate = estimator.estimate(picture, Quality.BEST, Progress.NONE);
        Plane fine = matte == null ? null : MatteRefiner.refine(matteOf(estimate), picture);
        Plane nearness = DepthEdges.follow(estimate, picture, 1);
        Inputs.write(out, to -> PictureWriter.writeGrey(nearness, to));
        if (matte != null && fine != null) {
            Inputs.write(matte, to -> PictureWriter.writeGrey(fine, to));
        }
        return 0;
    }

    private Plane matteOf(DepthEstimate estimate) {
        if (estimate.subject() == null) {
            throw new WrongUseException("--matte: the engine \"" + engine + "\" does not look for a subject");
        }
        return estimate.subject().matte();
    }
}
