package app.yubble.vision;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;

/** Where the networks are: what set-up made, and below {@code depth/} what the user has put there. */
public record ModelFolder(Path path) {
    public static final int FINE_SIDE = 1024;
    public static final int DRAFT_SIDE = 512;

    /** The name of the subject network's first output. */
    public static final String MATTE = "output";

    /** The draft network's outputs: the matte, then its encoder's features from fine to coarse. */
    public static final List<String> MATTE_AND_FEATURES =
            List.of(MATTE, "input.1088", "input.948", "input.832", "input.740", "input.656");

    /** Matte and features at 512 pixels. */
    public Path draftSubject() {
        return path.resolve("subject-512.onnx");
    }

    /** The matte at 1024 pixels. */
    public Path fineSubject() {
        return path.resolve("subject-1024.onnx");
    }

    /** Faces that are small in what the network sees, at 256 pixels. */
    public Path farFaces() {
        return path.resolve("faces-256.onnx");
    }

    /** Faces that fill much of it, at 128 pixels. */
    public Path nearFaces() {
        return path.resolve("faces-128.onnx");
    }

    public boolean hasFaceNetworks() {
        return Files.isRegularFile(farFaces()) && Files.isRegularFile(nearFaces());
    }

    /** The folder of other depth networks and their descriptors. */
    public Path depthNetworks() {
        return path.resolve("depth");
    }

    public boolean hasSubjectNetwork() {
        return Files.isRegularFile(draftSubject()) && Files.isRegularFile(fineSubject());
    }
}
