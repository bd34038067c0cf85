package app.yubble.cli;

import app.yubble.core.depth.DepthShapeException;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Size;
import app.yubble.media.depthfile.CameraDepth;
import app.yubble.media.depthfile.CameraDepthReader;
import app.yubble.media.depthfile.DepthFileReader;
import app.yubble.media.depthfile.MaskFileReader;
import app.yubble.media.picture.DecodedPicture;
import app.yubble.media.picture.PictureReader;
import app.yubble.media.picture.UnreadablePictureException;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;

/** Reads input files, naming them in every complaint, and writes output files whole or not at all. */
final class Inputs {
    private Inputs() {}

    static DecodedPicture picture(Path file) {
        try {
            return PictureReader.DEFAULT.read(bytes(file));
        } catch (UnreadablePictureException fault) {
            throw named(file, fault);
        }
    }

    static Plane depth(Path file, Size picture) {
        try {
            return new DepthFileReader(PictureReader.DEFAULT).read(bytes(file), picture);
        } catch (UnreadablePictureException | DepthShapeException fault) {
            throw named(file, fault);
        }
    }

    static Plane mask(Path file, Size picture) {
        return mask(file, bytes(file), picture);
    }

    /** @param content of a mask that came from {@code file} */
    static Plane mask(Path file, byte[] content, Size picture) {
        try {
            return new MaskFileReader(PictureReader.DEFAULT).read(content, picture);
        } catch (UnreadablePictureException | IllegalArgumentException fault) {
            throw named(file, fault);
        }
    }

    static Plane cameraDepth(Path file, Size picture) {
        try {
            return new CameraDepthReader(PictureReader.DEFAULT)
                    .read(bytes(file), picture)
                    .map(CameraDepth::nearness)
                    .orElseThrow(() -> new UnreadableInputException(file + ": no depth is stored in this photo", null));
        } catch (UnreadablePictureException | DepthShapeException fault) {
            throw named(file, fault);
        }
    }

    static byte[] bytes(Path file) {
        try {
            return Files.readAllBytes(file);
        } catch (NoSuchFileException fault) {
            throw new UnreadableInputException(file + ": there is no such file", fault);
        } catch (IOException fault) {
            throw named(file, fault);
        }
    }

    private static UnreadableInputException named(Path file, Exception fault) {
        return new UnreadableInputException(file + ": " + fault.getMessage(), fault);
    }

    /** Writes to a stream. */
    @FunctionalInterface
    interface Writing {
        void to(OutputStream out) throws IOException;
    }

    /** Through a temporary file beside {@code file}, renamed when the whole result is there. */
    static void write(Path file, Writing writing) throws IOException {
        Path folder = file.toAbsolutePath().getParent();
        Path partial = Files.createTempFile(folder, ".yubble-", ".part");
        try {
            try (OutputStream out = Files.newOutputStream(partial)) {
                writing.to(out);
            }
            Files.move(partial, file, StandardCopyOption.REPLACE_EXISTING);
        } finally {
            Files.deleteIfExists(partial);
        }
    }
}
