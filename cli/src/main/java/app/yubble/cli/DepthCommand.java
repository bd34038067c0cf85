package app.yubble.cli;

import app.yubble.core.depth.DepthScaling;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Progress;
import app.yubble.media.picture.PictureWriter;
import java.nio.file.Path;
import java.util.concurrent.Callable;
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

    @Option(names = "--engine", defaultValue = "auto", description = "auto, cues or ramp")
    private String engine;

    @Override
    public Integer call() throws Exception {
        var estimator = Engines.named(engine);
        Picture picture = Inputs.picture(photo).picture();
        Plane nearness = DepthScaling.alongEdges(estimator.estimate(picture, Progress.NONE), picture);
        Inputs.write(out, to -> PictureWriter.writeGrey(nearness, to));
        return 0;
    }
}
