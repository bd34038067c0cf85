package app.yubble.cli;

import app.yubble.core.depth.DepthEstimate;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Progress;
import app.yubble.core.raster.Reduction;
import app.yubble.core.raster.Size;
import app.yubble.core.recipe.DepthChoice;
import app.yubble.core.recipe.Recipe;
import app.yubble.core.refocus.HeldPhoto;
import app.yubble.core.refocus.Layers;
import app.yubble.core.refocus.RefocusLine;
import app.yubble.core.refocus.StageCache;
import app.yubble.core.subject.Quality;
import app.yubble.media.depthfile.DepthWriter;
import app.yubble.media.layered.LayeredWriter;
import app.yubble.media.picture.Carried;
import app.yubble.media.picture.DecodedPicture;
import app.yubble.media.picture.Origin;
import app.yubble.media.picture.PictureWriter;
import app.yubble.media.picture.WriteSettings;
import app.yubble.media.recipe.Done;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.concurrent.Callable;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** Runs a photo, or every photo of a folder, through a recipe. */
@Command(
        name = "refocus",
        description = "Refocuses a photo, or every photo of a folder.",
        mixinStandardHelpOptions = true)
final class RefocusCommand implements Callable<Integer> {
    @Spec
    private CommandSpec spec;

    @Parameters(paramLabel = "PHOTO", description = "JPEG, PNG, TIFF, WebP, HEIF, AVIF or raw; or a folder of them")
    private Path photo;

    @Option(
            names = "-o",
            paramLabel = "OUT",
            required = true,
            description = "the ending says the format: jpg, png, tif, webp, avif; a folder for a folder")
    private Path out;

    @Mixin
    private final RecipeOptions options = new RecipeOptions();

    @Option(names = "--depth", description = "auto, camera (stored in the photo) or a depth file, white = near")
    private @Nullable String depth;

    @Option(
            names = "--ladder",
            paramLabel = "X,Y;X,Y...",
            description = "pixels of things from near to far, whose order the depth map follows; = instead of ; between"
                    + " things equally far, X,Y:M where metres are known")
    private @Nullable String ladder;

    @Option(names = "--depth-flip", description = "the depth file has white far")
    private boolean depthFlip;

    @Mixin
    private final EngineOption engine = new EngineOption();

    @Option(names = "--max-size", description = "longest side of the output in pixels")
    private @Nullable Integer maxSize;

    @Option(names = "--timings", description = "one line of JSON with milliseconds for each stage on standard error")
    private boolean timings;

    @Option(names = "--format", description = "jpg, png, tif, webp or avif: of all results of a folder")
    private @Nullable String ending;

    @Mixin
    private final WriteOptions writing = new WriteOptions();

    @Option(names = "--layers", paramLabel = "FILE", description = "photo and refocused layer: .ora or .tif")
    private @Nullable Path layersOut;

    @Option(names = "--depth-out", paramLabel = "FILE", description = "the depth that was used: .png, .tif or .exr")
    private @Nullable Path depthOut;

    private final Map<String, Long> stages = new LinkedHashMap<>();
    private long stageStart = System.nanoTime();

    @Override
    public Integer call() throws Exception {
        if (maxSize != null && maxSize < 1) {
            throw new WrongUseException("--max-size: must be at least 1, found " + maxSize);
        }
        requireEndings();
        if (!Files.isDirectory(photo)) {
            if (ending != null) {
                throw new WrongUseException("--format: is for folders; of one photo the ending of -o says the format");
            }
            one(photo, out);
            return 0;
        }
        String given = ending == null ? "" : ending;
        if (!given.isEmpty() && PictureWriter.Format.ofName("." + given).isEmpty()) {
            throw new WrongUseException("--format: must be jpg, png, tif, webp or avif, found " + given);
        }
        if (layersOut != null || depthOut != null) {
            throw new WrongUseException((layersOut != null ? "--layers" : "--depth-out") + ": is for one photo");
        }
        if (ladder != null) {
            throw new WrongUseException("--ladder: is for one photo");
        }
        if (depth != null && !depth.equals("auto") && !depth.equals("camera")) {
            throw new WrongUseException("--depth: of a folder it must be auto or camera, found " + depth);
        }
        if (Files.exists(out) && !Files.isDirectory(out)) {
            throw new WrongUseException("-o: for a folder of photos it must be a folder, found the file " + out);
        }
        // A recipe that is wrong is told once, not for every photo.
        options.recipe();
        return new PhotoFolder(photo, out, given).run(spec.commandLine().getErr(), this::one);
    }

    private void one(Path photo, Path out) throws IOException {
        stages.clear();
        stageStart = System.nanoTime();
        PictureWriter.Format format = PictureWriter.Format.ofName(out.toString())
                .orElseThrow(() ->
                        new WrongUseException("-o: the ending of " + out + " must be jpg, png, tif, webp or avif"));
        Recipe recipe = options.recipe();
        DecodedPicture decoded = Inputs.picture(photo);
        finished("decode");
        HeldPhoto shot = new HeldPhoto(
                decoded.picture(),
                depthMap(photo, decoded.picture()),
                options.masks(recipe, decoded.picture().size()));
        finished("depth");
        Size size = maxSize == null ? shot.size() : shot.size().fitting(maxSize);
        boolean stored = "camera".equals(depth);
        boolean file = depth != null && !stored && !depth.equals("auto");
        if (depth != null || depthFlip) {
            recipe = recipe.withDepth(DepthChoice.of(sourceOf(file, stored))
                    .withTrim(recipe.depth().trim().withFlip(depthFlip))
                    .withLadder(recipe.depth().ladder()));
        }
        if (ladder != null) {
            recipe = recipe.withDepth(recipe.depth().withLadder(Rungs.parse(ladder, shot.size(), Rungs::ofPhoto)));
        }
        if (recipe.depth().source() == DepthChoice.Source.FILE && !file) {
            throw new WrongUseException("--depth: the recipe takes depth from a file; name it here");
        }
        RefocusLine line = new RefocusLine(StageCache.keepingAll());
        Plane nearness = line.nearness(shot, recipe.depth(), size);
        finished("nearness");
        recipe = options.withOptions(
                recipe,
                shot,
                line.picture(shot, size),
                nearness,
                decoded.origin().camera());
        Origin origin = decoded.origin().withSize(size);
        WriteSettings settings = writing.settings(format, Done.of(recipe));
        Picture result = layersOut == null
                ? Reduction.of(options.render(line, shot, recipe, Reduction.drawnAt(shot.size(), size)), size)
                : layered(line, shot, recipe, size, origin, settings.carried(), layersOut);
        finished("render");
        Inputs.write(out, to -> PictureWriter.write(result, origin, settings, to));
        if (depthOut != null) {
            DepthWriter.Format depthFormat =
                    DepthWriter.Format.ofName(depthOut.toString()).orElseThrow();
            Inputs.write(depthOut, to -> DepthWriter.write(nearness, depthFormat, to));
        }
        finished("encode");
        if (timings) {
            spec.commandLine()
                    .getErr()
                    .println(stages.entrySet().stream()
                            .map(stage -> "\"" + stage.getKey() + "\":" + stage.getValue())
                            .collect(Collectors.joining(",", "{", "}")));
        }
    }

    private void requireEndings() {
        if (depthOut != null && DepthWriter.Format.ofName(depthOut.toString()).isEmpty()) {
            throw new WrongUseException("--depth-out: the ending of " + depthOut + " must be png, tif or exr");
        }
        if (layersOut != null
                && LayeredWriter.Format.ofName(layersOut.toString()).isEmpty()) {
            throw new WrongUseException("--layers: the ending of " + layersOut + " must be ora or tif");
        }
    }

    /** Writes the layers; gives what they compose to. */
    private Picture layered(
            RefocusLine line, HeldPhoto shot, Recipe recipe, Size size, Origin origin, Carried carried, Path file)
            throws IOException {
        Layers layers = line.layers(shot, recipe, options.render(line, shot, recipe.everywhere(), size));
        LayeredWriter.Format format =
                LayeredWriter.Format.ofName(file.toString()).orElseThrow();
        Inputs.write(file, to -> LayeredWriter.write(layers, origin, format, carried, to));
        return layers.composed();
    }

    private static DepthChoice.Source sourceOf(boolean file, boolean stored) {
        if (file) {
            return DepthChoice.Source.FILE;
        }
        return stored ? DepthChoice.Source.CAMERA : DepthChoice.Source.ESTIMATED;
    }

    private DepthEstimate depthMap(Path photo, Picture picture) {
        if (depth == null || depth.equals("auto")) {
            return engine.estimator().estimate(picture, Quality.BEST, Progress.NONE);
        }
        if (depth.equals("camera")) {
            return DepthEstimate.of(Inputs.cameraDepth(photo, picture.size()));
        }
        return DepthEstimate.of(Inputs.depth(Path.of(depth), picture.size()));
    }

    private void finished(String stage) {
        long now = System.nanoTime();
        stages.put(stage, (now - stageStart) / 1_000_000);
        stageStart = now;
    }
}
