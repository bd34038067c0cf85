package app.yubble.cli;

import app.yubble.core.clip.DepthOverTime;
import app.yubble.core.depth.DepthEdges;
import app.yubble.core.depth.DepthEstimate;
import app.yubble.core.depth.DepthEstimator;
import app.yubble.core.depth.DepthShapeException;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Progress;
import app.yubble.core.refocus.HeldPhoto;
import app.yubble.core.refocus.Still;
import app.yubble.core.subject.Quality;
import app.yubble.media.clip.ClipFile;
import app.yubble.media.clip.ClipInfo;
import app.yubble.media.clip.ClipProbe;
import app.yubble.media.clip.ClipScan;
import app.yubble.media.clip.ClipSheet;
import app.yubble.media.clip.DepthClip;
import app.yubble.media.clip.DepthReel;
import app.yubble.media.clip.GreyClip;
import app.yubble.media.clip.PlaneFiles;
import app.yubble.media.clip.UnreadableClipException;
import app.yubble.media.picture.PictureReader;
import app.yubble.vision.InverseSearchFlow;
import java.io.IOException;
import java.io.InputStream;
import java.io.PrintWriter;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.util.Comparator;
import java.util.Locale;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/** A clip that is worked on, with a folder for what is only needed meanwhile. */
final class ClipWork implements AutoCloseable {
    /** As many as ten hours at 60 frames a second: on the command line nobody else waits. */
    private static final ClipScan.Limits LIMITS = new ClipScan.Limits(2_160_000);

    private final Path clip;
    private final Path folder;
    private final PrintWriter err;
    private final ClipFile full;
    private final ClipFile small;

    private ClipWork(Path clip, Path folder, PrintWriter err) {
        this.clip = clip;
        this.folder = folder;
        this.err = err;
        try {
            ClipInfo info = ClipProbe.probe(clip);
            Path proxy = folder.resolve("small.mp4");
            ClipScan scan = ClipScan.of(clip, info, proxy, folder.resolve("times"), LIMITS, told("reading", 0, 1));
            if (!scan.complaint().isEmpty()) {
                err.println("yubble: " + clip + ": only " + scan.sheet().frames() + " frames could be read ("
                        + scan.complaint() + ")");
            }
            full = new ClipFile(clip, scan.sheet());
            small = new ClipFile(proxy, scan.sheet().ofProxy(ClipScan.proxySize(info.size())));
        } catch (UnreadableClipException fault) {
            throw new UnreadableInputException(clip + ": " + fault.getMessage(), fault);
        }
    }

    /** Whether a file begins like a clip. */
    static boolean isClip(Path file) {
        try (InputStream in = Files.newInputStream(file)) {
            return ClipProbe.looksLikeClip(in.readNBytes(ClipProbe.START));
        } catch (NoSuchFileException missing) {
            throw new UnreadableInputException(file + ": there is no such file", missing);
        } catch (IOException fault) {
            throw new UnreadableInputException(file + ": " + fault.getMessage(), fault);
        }
    }

    /** @param beside the result, whose folder is known to have room */
    static ClipWork open(Path clip, Path beside, PrintWriter err) throws IOException {
        if (!Files.exists(clip)) {
            throw new UnreadableInputException(clip + ": there is no such file", null);
        }
        Path folder = Files.createTempDirectory(beside.toAbsolutePath().getParent(), ".yubble-");
        try {
            return new ClipWork(clip, folder, err);
        } catch (RuntimeException fault) {
            remove(folder);
            throw fault;
        }
    }

    ClipFile full() {
        return full;
    }

    /** Brightness in the small file, for following points. */
    GreyClip small() {
        return new GreyClip(small.file(), small.sheet());
    }

    ClipFile smallFile() {
        return small;
    }

    ClipSheet sheet() {
        return full.sheet();
    }

    Path temporary(String name) {
        return folder.resolve(name);
    }

    /** Progress in per cent on standard error, a line for each twentieth. */
    Progress told(String what, double from, double to) {
        int[] last = {-1};
        return done -> {
            int percent = (int) (100 * (from + (to - from) * done));
            if (percent / 5 > last[0]) {
                last[0] = percent / 5;
                err.println(String.format(Locale.ROOT, "%s %d %%", what, percent));
            }
        };
    }

    /** Estimated depth of every frame. */
    DepthReel estimated(DepthEstimator estimator, Quality quality) {
        DepthReel reel = reel(true);
        try (PlaneFiles shelves = new PlaneFiles(folder.resolve("shelves"))) {
            new DepthOverTime(estimator, new InverseSearchFlow(), quality)
                    .run(
                            small.shot(),
                            small,
                            shelves,
                            new DepthOverTime.Sink() {
                                @Override
                                public void first(int frame, DepthEstimate estimate) {
                                    // Only what is settled is asked for.
                                }

                                @Override
                                public void settled(int frame, DepthEstimate estimate) {
                                    reel.add(frame, estimate);
                                }
                            },
                            told("depth", 0, 1));
        }
        return reel;
    }

    /** Depth from a folder of pictures, a zip or a film. */
    DepthReel broughtIn(Path from) throws IOException {
        DepthReel reel = reel(false);
        try {
            new DepthClip(PictureReader.DEFAULT)
                    .read(from, folder.resolve("depth-times"), sheet(), reel::add, told("depth", 0, 1));
        } catch (UnreadableClipException | DepthShapeException fault) {
            throw new UnreadableInputException(from + ": " + fault.getMessage(), fault);
        } catch (NoSuchFileException missing) {
            throw new UnreadableInputException(from + ": there is no such file or folder", missing);
        }
        return reel;
    }

    /**
     * A frame with its depth.
     *
     * @param moments the frames on which a ladder stands
     */
    static HeldPhoto still(
            Picture picture,
            DepthReel reel,
            int frame,
            Map<String, Plane> masks,
            Kept kept,
            Map<Double, Still> moments) {
        DepthEstimate map = reel.at(frame);
        if (map == null) {
            throw new IllegalStateException("frame " + (frame + 1) + " has no depth");
        }
        return new HeldPhoto(picture, map, masks, kept.at(frame), DepthEdges.Detail.STEADY, frame, moments);
    }

    private DepthReel reel(boolean estimates) {
        return new DepthReel(
                new DepthReel.Store() {
                    @Override
                    public void put(int pack, byte[] content) {
                        try {
                            Files.write(folder.resolve("depth-" + pack), content);
                        } catch (IOException fault) {
                            throw new UncheckedIOException("depth could not be kept", fault);
                        }
                    }

                    @Override
                    public byte @Nullable [] get(int pack) {
                        try {
                            return Files.readAllBytes(folder.resolve("depth-" + pack));
                        } catch (IOException fault) {
                            throw new UncheckedIOException("depth cannot be read", fault);
                        }
                    }
                },
                sheet().frames(),
                estimates);
    }

    Path clip() {
        return clip;
    }

    @Override
    public void close() {
        remove(folder);
    }

    static void remove(Path folder) {
        try (var all = Files.walk(folder)) {
            for (Path each : all.sorted(Comparator.reverseOrder()).toList()) {
                Files.deleteIfExists(each);
            }
        } catch (IOException fault) {
            throw new UncheckedIOException("temporary files could not be removed", fault);
        }
    }
}
