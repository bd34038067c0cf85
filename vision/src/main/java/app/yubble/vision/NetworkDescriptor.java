package app.yubble.vision;

import app.yubble.core.raster.Size;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.DigestInputStream;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.ArrayList;
import java.util.HexFormat;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.json.JsonMapper;

/**
 * What a depth network's file cannot say itself; the format is in docs/formats.md.
 *
 * @param name lower case letters, digits and hyphens; unique in the folder
 * @param licence of the weights
 * @param file name of the ONNX file beside the descriptor
 * @param sha256 of that file, in hexadecimal
 */
public record NetworkDescriptor(
        String name, String about, String licence, String file, String sha256, Input input, Output output) {
    private static final String NAME = "[a-z0-9][a-z0-9-]{0,58}";
    private static final String FILE = "[A-Za-z0-9][A-Za-z0-9._-]{0,120}";
    private static final int MOST_SIDE = 4096;

    /**
     * @param mean of each channel, red, green, blue, on the scale 0 to 255
     * @param deviation what the difference is divided by
     */
    record Input(String name, int width, int height, Layout layout, float[] mean, float[] deviation) {
        Size size() {
            return new Size(width, height);
        }

        long[] shape() {
            return layout == Layout.NCHW ? new long[] {1, 3, height, width} : new long[] {1, height, width, 3};
        }
    }

    record Output(String name, Meaning meaning) {}

    /** Order of the input's dimensions. */
    enum Layout {
        NCHW,
        NHWC
    }

    /** What the output's numbers are. */
    enum Meaning {
        NEARNESS,
        DEPTH,
        LOG_DEPTH
    }

    /** A descriptor or its file that cannot be used; the message lists everything that is wrong. */
    public static final class BadDescriptorException extends Exception {
        private static final long serialVersionUID = 1L;

        BadDescriptorException(String message) {
            super(message);
        }
    }

    private record Raw(
            @Nullable String format,
            @Nullable Integer version,
            @Nullable String name,
            @Nullable String about,
            @Nullable String licence,
            @Nullable String file,
            @Nullable String sha256,
            @Nullable RawInput input,
            @Nullable RawOutput output) {}

    private record RawInput(
            @Nullable String name,
            @Nullable Integer width,
            @Nullable Integer height,
            @Nullable String layout,
            float @Nullable [] mean,
            float @Nullable [] deviation) {}

    private record RawOutput(
            @Nullable String name, @Nullable String meaning) {}

    static NetworkDescriptor read(Path path) throws BadDescriptorException {
        try {
            return parse(Files.readAllBytes(path));
        } catch (IOException fault) {
            throw new BadDescriptorException("it cannot be read: " + fault.getMessage());
        }
    }

    /** @throws BadDescriptorException with all that is wrong with it */
    public static NetworkDescriptor parse(byte[] json) throws BadDescriptorException {
        Raw raw;
        try {
            raw = JsonMapper.shared().readValue(json, Raw.class);
        } catch (JacksonException fault) {
            throw new BadDescriptorException("it is not JSON as a descriptor has it: " + fault.getOriginalMessage());
        }
        List<String> faults = new ArrayList<>();
        need(faults, "yubble-depth-network".equals(raw.format), "\"format\" must be \"yubble-depth-network\"");
        need(faults, Integer.valueOf(1).equals(raw.version), "\"version\" must be 1");
        need(
                faults,
                raw.name != null && raw.name.matches(NAME),
                "\"name\" must be lower case letters, digits, hyphens");
        need(faults, raw.licence != null && !raw.licence.isBlank(), "\"licence\" of the weights is missing");
        need(faults, raw.file != null && raw.file.matches(FILE), "\"file\" must be a plain file name beside it");
        need(faults, raw.sha256 != null && raw.sha256.matches("[0-9a-f]{64}"), "\"sha256\" must be 64 hex digits");
        Input input = input(faults, raw.input);
        Output output = output(faults, raw.output);
        if (!faults.isEmpty() || input == null || output == null) {
            throw new BadDescriptorException(String.join("; ", faults));
        }
        return new NetworkDescriptor(
                String.valueOf(raw.name),
                raw.about == null ? "" : raw.about,
                String.valueOf(raw.licence),
                String.valueOf(raw.file),
                String.valueOf(raw.sha256),
                input,
                output);
    }

    private static void need(List<String> faults, boolean right, String fault) {
        if (!right) {
            faults.add(fault);
        }
    }

    private static @Nullable Input input(List<String> faults, @Nullable RawInput raw) {
        if (raw == null || raw.name == null || raw.width == null || raw.height == null) {
            faults.add("\"input\" needs name, width and height");
            return null;
        }
        boolean sized = raw.width >= 16 && raw.width <= MOST_SIDE && raw.height >= 16 && raw.height <= MOST_SIDE;
        need(faults, sized, "the input's width and height must be in 16.." + MOST_SIDE);
        float[] mean = raw.mean == null ? new float[] {0, 0, 0} : raw.mean;
        float[] deviation = raw.deviation == null ? new float[] {255, 255, 255} : raw.deviation;
        boolean three = mean.length == 3 && deviation.length == 3;
        need(faults, three, "the input's mean and deviation need three numbers each, for red, green and blue");
        for (int c = 0; three && c < 3; c++) {
            need(faults, Float.isFinite(mean[c]) && deviation[c] > 0, "the input's deviation must be over 0");
        }
        Layout layout = value(faults, Layout.class, raw.layout == null ? "nchw" : raw.layout, "the input's layout");
        return layout == null ? null : new Input(raw.name, raw.width, raw.height, layout, mean, deviation);
    }

    private static @Nullable Output output(List<String> faults, @Nullable RawOutput raw) {
        if (raw == null || raw.name == null || raw.meaning == null) {
            faults.add("\"output\" needs name and meaning");
            return null;
        }
        Meaning meaning = value(faults, Meaning.class, raw.meaning, "the output's meaning");
        return meaning == null ? null : new Output(raw.name, meaning);
    }

    private static <E extends Enum<E>> @Nullable E value(List<String> faults, Class<E> type, String text, String what) {
        List<String> known = new ArrayList<>();
        for (E each : type.getEnumConstants()) {
            String word = each.name().toLowerCase(Locale.ROOT).replace('_', ' ');
            if (word.equals(text)) {
                return each;
            }
            known.add(word);
        }
        faults.add(what + " must be one of " + String.join(", ", known) + ", found \"" + text + "\"");
        return null;
    }

    /** Holds the file against the descriptor: its hash, that it loads, and the shapes of its input and output. */
    void check(Path onnx, Network network) throws BadDescriptorException {
        if (!Files.isRegularFile(onnx)) {
            throw new BadDescriptorException("its file " + file + " is not there");
        }
        String found = hash(onnx);
        if (!found.equals(sha256)) {
            throw new BadDescriptorException("its file " + file + " has the SHA-256 " + found + ", not the one given");
        }
        Map<String, long[]> inputs = inputsOf(network);
        long[] takes = inputs.get(input.name());
        if (takes == null || inputs.size() != 1) {
            throw new BadDescriptorException(
                    "its file takes " + inputs.keySet() + ", not one input of 32-bit numbers named " + input.name());
        }
        long[] wanted = input.shape();
        for (int d = 0; d < 4; d++) {
            if (takes.length != 4 || takes[d] != wanted[d] && !(d == 0 && takes[d] == -1)) {
                throw new BadDescriptorException("its file takes " + shape(takes) + ", the descriptor says "
                        + shape(wanted) + (shape(takes).contains("open") ? "; export it with a fixed size" : ""));
            }
        }
        if (!network.outputs().containsKey(output.name())) {
            throw new BadDescriptorException(
                    "its file answers " + network.outputs().keySet() + ", not " + output.name());
        }
    }

    private static Map<String, long[]> inputsOf(Network network) throws BadDescriptorException {
        try {
            return network.inputs();
        } catch (Network.NetworkException fault) {
            throw new BadDescriptorException(String.valueOf(fault.getMessage()));
        }
    }

    private static String shape(long[] dimensions) {
        List<String> words = new ArrayList<>();
        for (long dimension : dimensions) {
            words.add(dimension < 0 ? "open" : String.valueOf(dimension));
        }
        return String.join("x", words);
    }

    private static String hash(Path file) throws BadDescriptorException {
        try (InputStream in = new DigestInputStream(Files.newInputStream(file), MessageDigest.getInstance("SHA-256"))) {
            in.transferTo(java.io.OutputStream.nullOutputStream());
            return HexFormat.of()
                    .formatHex(((DigestInputStream) in).getMessageDigest().digest());
        } catch (IOException fault) {
            throw new BadDescriptorException("its file cannot be read: " + fault.getMessage());
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException("every Java platform has SHA-256", e);
        }
    }
}
