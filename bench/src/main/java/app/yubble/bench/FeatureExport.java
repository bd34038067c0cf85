package app.yubble.bench;

import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Progress;
import app.yubble.core.raster.Resample;
import app.yubble.core.raster.Size;
import app.yubble.media.picture.PictureReader;
import app.yubble.vision.ModelFolder;
import app.yubble.vision.Network;
import app.yubble.vision.SubjectNetwork;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.FloatBuffer;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.List;

/**
 * Runs the encoder over training scenes: {@code MODELS FOLDER} reads {@code FOLDER/scenes/*.jpg} and writes
 * {@code FOLDER/features/*.f16}, the features from fine to coarse and the matte at 128x128 as half-precision numbers,
 * little-endian. What is there is not made again.
 */
public final class FeatureExport {
    private static final int MATTE_SIDE = 128;

    private FeatureExport() {}

    public static void main(String[] arguments) throws IOException {
        SubjectNetwork network = new SubjectNetwork(new ModelFolder(Path.of(arguments[0])));
        Path folder = Path.of(arguments[1]);
        Path features = Files.createDirectories(folder.resolve("features"));
        List<Path> pictures;
        try (var files = Files.list(folder.resolve("scenes"))) {
            pictures = files.filter(file -> file.toString().endsWith(".jpg"))
                    .sorted()
                    .toList();
        }
        int made = 0;
        for (Path picture : pictures) {
            String name = picture.getFileName().toString().replace(".jpg", "");
            Path target = features.resolve(name + ".f16");
            if (!Files.exists(target) && Files.exists(picture.resolveSibling(name + ".done"))) {
                Picture decoded =
                        PictureReader.DEFAULT.read(Files.readAllBytes(picture)).picture();
                Path partial = features.resolve(name + ".part");
                Files.write(partial, halves(network.features(decoded, Progress.NONE)));
                Files.move(partial, target, StandardCopyOption.ATOMIC_MOVE);
                made++;
            }
        }
        System.out.println(made + " scenes, " + pictures.size() + " in all");
    }

    private static byte[] halves(SubjectNetwork.Features features) {
        Plane matte = Resample.toSize(features.matte(), new Size(MATTE_SIDE, MATTE_SIDE));
        int count = matte.samples().length;
        for (Network.Tensor tensor : features.tensors()) {
            count += tensor.samples().rewind().remaining();
        }
        ByteBuffer out = ByteBuffer.allocate(count * Short.BYTES).order(ByteOrder.LITTLE_ENDIAN);
        for (Network.Tensor tensor : features.tensors()) {
            FloatBuffer samples = tensor.samples().rewind();
            while (samples.hasRemaining()) {
                out.putShort(half(samples.get()));
            }
        }
        for (float sample : matte.samples()) {
            out.putShort(half(sample));
        }
        return out.array();
    }

    /** Nearest half-precision number (IEEE 754); too large becomes the largest, too small becomes zero. */
    private static short half(float value) {
        int bits = Float.floatToRawIntBits(value);
        int sign = bits >>> 16 & 0x8000;
        int magnitude = (bits & 0x7fffffff) + 0x1000;
        if (magnitude >= 0x47800000) {
            return (short) (sign | 0x7bff);
        }
        if (magnitude >= 0x38800000) {
            return (short) (sign | magnitude - 0x38000000 >>> 13);
        }
        return (short) (sign | Math.round(Math.abs(value) * 0x1p24f));
    }
}
