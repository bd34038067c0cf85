package app.yubble.media.picture;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayDeque;
import java.util.Arrays;
import java.util.Deque;
import java.util.HashSet;
import java.util.List;
import java.util.Set;

/**
 * Develops raw files of cameras through Debian's LibRaw tools, as a separate process with limits of time and memory: 16 bits, linear,
 * with the white balance of the camera, and in a space that holds all its colours.
 */
final class RawTools {
    private static final OutsideProgram PROGRAM =
            new OutsideProgram("the raw file", "is cut off or damaged", "libraw-bin", Duration.ofMinutes(2));

    /** The first bytes of raw files that are no TIFF: Fujifilm, Olympus, Panasonic. */
    private static final List<byte[]> STARTS =
            List.of(ascii("FUJIFILMCCD-RAW"), ascii("IIRO"), ascii("IIRS"), ascii("IIU\0"));

    /** Canon's marks: in a TIFF after its header, and the brand of a container. */
    private static final byte[] CANON_TIFF = ascii("CR");

    private static final byte[] CANON_BRAND = ascii("ftypcrx ");

    private static final int SUB_DIRECTORIES = 0x014a;
    private static final int PHOTOMETRIC = 0x0106;
    private static final int DNG_VERSION = 0xc612;
    /** Values of {@link #PHOTOMETRIC} (TIFF/EP and DNG): samples of a colour filter, and linear ones. */
    private static final Set<Integer> OF_A_SENSOR = Set.of(32803, 34892);

    private static final int MOST_DIRECTORIES = 20;
    private static final int MOST_ENTRIES = 300;

    /** From linear sRGB to the space in which raw files are developed, as LibRaw has it; rows are normalised to white. */
    private static final Matrix3 DEVELOPED = new Matrix3(
            new double[] {0.529317, 0.330092, 0.140588, 0.098368, 0.873465, 0.028169, 0.016879, 0.117663, 0.865457});

    private RawTools() {}

    private static byte[] ascii(String text) {
        return text.getBytes(StandardCharsets.US_ASCII);
    }

    /** By its content: TIFF files whose pictures are of a sensor, and what cameras write instead. */
    static boolean isRaw(byte[] file) {
        if (STARTS.stream().anyMatch(start -> startsWith(file, 0, start)) || startsWith(file, 4, CANON_BRAND)) {
            return true;
        }
        boolean tiff = PictureReader.formatOf(file).filter("TIFF"::equals).isPresent();
        try {
            return tiff && (startsWith(file, 8, CANON_TIFF) || isOfASensor(file));
        } catch (IndexOutOfBoundsException broken) {
            return false;
        }
    }

    private static boolean startsWith(byte[] file, int at, byte[] start) {
        return file.length >= at + start.length && Arrays.equals(file, at, at + start.length, start, 0, start.length);
    }

    private static boolean isOfASensor(byte[] file) {
        ByteBuffer in = ByteBuffer.wrap(file);
        in.order(file[0] == 'I' ? ByteOrder.LITTLE_ENDIAN : ByteOrder.BIG_ENDIAN);
        Deque<Integer> directories = new ArrayDeque<>(List.of(in.getInt(4)));
        Set<Integer> seen = new HashSet<>();
        while (!directories.isEmpty() && seen.size() < MOST_DIRECTORIES) {
            int at = directories.poll();
            if (at <= 0 || !seen.add(at)) {
                continue;
            }
            int count = Math.min(MOST_ENTRIES, in.getShort(at) & 0xffff);
            for (int i = 0; i < count; i++) {
                int entry = at + 2 + 12 * i;
                int tag = in.getShort(entry) & 0xffff;
                if (tag == DNG_VERSION || tag == PHOTOMETRIC && OF_A_SENSOR.contains(in.getShort(entry + 8) & 0xffff)) {
                    return true;
                }
                if (tag == SUB_DIRECTORIES) {
                    int subs = Math.min(MOST_DIRECTORIES, in.getInt(entry + 4));
                    for (int k = 0; k < subs; k++) {
                        directories.add(in.getInt(subs == 1 ? entry + 8 : in.getInt(entry + 8) + 4 * k));
                    }
                }
            }
        }
        return false;
    }

    /** A TIFF of 16-bit linear samples, upright. */
    static byte[] developed(byte[] file) {
        try {
            return OutsideProgram.inFolder(folder -> {
                Files.write(folder.resolve("in.raw"), file);
                PROGRAM.run(
                        folder,
                        List.of("dcraw_emu", "-4", "-w", "-H", "2", "-o", "4", "-T", "-Z", "out.tif", "in.raw"));
                Path out = folder.resolve("out.tif");
                if (!Files.exists(out)) {
                    throw new UnreadablePictureException("not a raw file that LibRaw knows");
                }
                return Files.readAllBytes(out);
            });
        } catch (IOException fault) {
            throw new UncheckedIOException("the raw file could not be developed", fault);
        }
    }

    /** From the space of {@link #developed} to linear sRGB. */
    static Matrix3 toSrgb() {
        return DEVELOPED.inverse();
    }
}
