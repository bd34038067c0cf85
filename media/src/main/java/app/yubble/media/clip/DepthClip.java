package app.yubble.media.clip;

import app.yubble.core.clip.FrameSource;
import app.yubble.core.depth.DepthEstimate;
import app.yubble.core.depth.DepthShapeException;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Progress;
import app.yubble.core.raster.Size;
import app.yubble.media.depthfile.DepthFileReader;
import app.yubble.media.picture.PictureReader;
import app.yubble.media.picture.UnreadablePictureException;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.zip.ZipEntry;
import java.util.zip.ZipFile;

/** Depth maps of a clip from elsewhere: a film, or pictures in a folder or a zip, one a frame; white is near. */
public final class DepthClip {
    /** A depth map of one frame in a zip: 16 bits at 4K, and as much again. */
    private static final int MOST_PICTURE = 64 << 20;

    private final PictureReader pictures;

    public DepthClip(PictureReader pictures) {
        this.pictures = pictures;
    }

    /** Takes a frame's map. */
    @FunctionalInterface
    public interface Taker {
        void take(int frame, DepthEstimate map);
    }

    /**
     * Reads all maps.
     *
     * @param times a temporary file
     * @param sheet of the clip that they belong to
     * @throws UnreadableClipException when there are more or fewer maps than frames, or one cannot be read
     * @throws DepthShapeException when they have another shape
     */
    public void read(Path from, Path times, ClipSheet sheet, Taker taker, Progress progress) throws IOException {
        if (Files.isDirectory(from)) {
            try (var all = Files.list(from)) {
                List<Path> files = all.filter(Files::isRegularFile)
                        .filter(each -> isPicture(each.getFileName().toString()))
                        .sorted(Comparator.comparing(each -> each.getFileName().toString()))
                        .toList();
                requireCount(files.size(), sheet, "pictures");
                for (int i = 0; i < files.size(); i++) {
                    take(i, files.get(i).getFileName().toString(), Files.readAllBytes(files.get(i)), sheet, taker);
                    progress.at((i + 1.0) / files.size());
                }
            }
        } else if (isZip(from)) {
            readZip(from, sheet, taker, progress);
        } else {
            readFilm(from, times, sheet, taker, progress);
        }
    }

    private static boolean isPicture(String name) {
        String lower = name.toLowerCase(Locale.ROOT);
        boolean hidden = lower.startsWith(".") || lower.contains("__macosx");
        return !hidden
                && List.of(".png", ".tif", ".tiff", ".jpg", ".jpeg", ".exr").stream()
                        .anyMatch(lower::endsWith);
    }

    private static boolean isZip(Path file) throws IOException {
        try (InputStream in = Files.newInputStream(file)) {
            byte[] start = in.readNBytes(4);
            return start.length == 4 && start[0] == 'P' && start[1] == 'K' && start[2] == 3 && start[3] == 4;
        }
    }

    private void readZip(Path file, ClipSheet sheet, Taker taker, Progress progress) throws IOException {
        try (ZipFile zip = new ZipFile(file.toFile(), StandardCharsets.UTF_8)) {
            List<? extends ZipEntry> entries = zip.stream()
                    .filter(each -> !each.isDirectory() && isPicture(each.getName()))
                    .sorted(Comparator.comparing(ZipEntry::getName))
                    .toList();
            requireCount(entries.size(), sheet, "pictures");
            for (int i = 0; i < entries.size(); i++) {
                ZipEntry entry = entries.get(i);
                try (InputStream in = zip.getInputStream(entry)) {
                    byte[] content = in.readNBytes(MOST_PICTURE + 1);
                    if (content.length > MOST_PICTURE) {
                        throw new UnreadableClipException(entry.getName() + " in the zip is larger than 64 MB");
                    }
                    take(i, entry.getName(), content, sheet, taker);
                }
                progress.at((i + 1.0) / entries.size());
            }
        } catch (java.util.zip.ZipException fault) {
            throw new UnreadableClipException("the zip is damaged (" + fault.getMessage() + ")", fault);
        }
    }

    private void take(int frame, String name, byte[] content, ClipSheet sheet, Taker taker) {
        try {
            // A map of one frame may be even: everything else is read as a photo's.
            Plane map = new DepthFileReader(pictures)
                    .readFrame(content, sheet.info().size());
            taker.take(frame, DepthEstimate.of(map));
        } catch (UnreadablePictureException fault) {
            throw new UnreadableClipException(name + ": " + fault.getMessage(), fault);
        }
    }

    private void readFilm(Path file, Path times, ClipSheet sheet, Taker taker, Progress progress) {
        ClipInfo info = ClipProbe.probe(file);
        Size size = sheet.info().size();
        if (!info.size().hasShapeOf(size)) {
            throw new DepthShapeException(info.size(), size);
        }
        ClipSheet own = ClipScan.times(file, info, times);
        requireCount(own.frames(), sheet, "frames");
        FrameSource frames = new ClipFile(file, own.asCodes());
        frames.each(0, own.frames(), (frame, picture) -> {
            taker.take(frame, DepthEstimate.of(mean(picture)));
            progress.at((frame + 1.0) / own.frames());
        });
    }

    private static Plane mean(Picture picture) {
        Plane out = new Plane(picture.size());
        float[] red = picture.red().samples();
        float[] green = picture.green().samples();
        float[] blue = picture.blue().samples();
        for (int i = 0; i < red.length; i++) {
            out.samples()[i] = (red[i] + green[i] + blue[i]) / 3;
        }
        return out;
    }

    private static void requireCount(int found, ClipSheet sheet, String what) {
        if (found != sheet.frames()) {
            throw new UnreadableClipException("the depth clip has " + found + " " + what + ", the clip has "
                    + sheet.frames() + " frames; they must be as many");
        }
    }
}
