package app.yubble.vision;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.DigestOutputStream;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.HexFormat;
import java.util.Map;

/**
 * What the networks that set-up makes have to be, to the byte. They are native code's input: a file that was changed is not
 * loaded.
 */
public final class ModelHashes {
    private static final Map<String, String> MADE = Map.of(
            "subject-1024.onnx", "747ec6a7e47a5be1764dd1e60e527d2d1c9a01db300381b9eb5be0be383f4342",
            "subject-512.onnx", "9ab881d89ee298f7e21a1303c970c87591f03d94e17ce5a15305a81817dcd1ce",
            "faces-256.onnx", "427cbbe0fc41448d09e1dc9cfabe2423d997cf2faaeab91fadd09a510b63b8e2",
            "faces-128.onnx", "d388b1cf8a5f6f1af2b3f4c14f6d0f138bab970cd618cccd12dddb7484e82e51");

    private ModelHashes() {}

    /** Networks are not what they should be; the message says how that is mended. */
    public static final class ChangedModelException extends RuntimeException {
        private static final long serialVersionUID = 1L;

        ChangedModelException(Path file) {
            super(file + " is not the network that set-up has made. Delete it: it is made again at the next start.");
        }
    }

    /** @throws ChangedModelException when one that is there is another one; one that is missing is not minded */
    public static void require(ModelFolder folder) {
        MADE.entrySet().parallelStream().forEach(each -> {
            Path file = folder.path().resolve(each.getKey());
            if (Files.isRegularFile(file) && !of(file).equals(each.getValue())) {
                throw new ChangedModelException(file);
            }
        });
    }

    private static String of(Path file) {
        try (InputStream in = Files.newInputStream(file);
                DigestOutputStream digest =
                        new DigestOutputStream(OutputStream.nullOutputStream(), MessageDigest.getInstance("SHA-256"))) {
            in.transferTo(digest);
            return HexFormat.of().formatHex(digest.getMessageDigest().digest());
        } catch (IOException fault) {
            throw new UncheckedIOException(file + " cannot be read", fault);
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException("every Java platform has SHA-256", e);
        }
    }
}
