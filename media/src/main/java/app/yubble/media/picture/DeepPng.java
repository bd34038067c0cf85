package app.yubble.media.picture;

import java.awt.color.ColorSpace;
import java.awt.image.BufferedImage;
import java.awt.image.ComponentColorModel;
import java.awt.image.DataBuffer;
import java.awt.image.DataBufferUShort;
import java.awt.image.Raster;
import java.awt.image.WritableRaster;
import java.nio.charset.StandardCharsets;
import java.util.zip.DataFormatException;
import java.util.zip.Inflater;
import org.jspecify.annotations.Nullable;

/**
 * Reads plain PNG files of 16 bits, grey or RGB (ISO/IEC 15948). The platform's reader moves each of their pixels through two calls, and
 * every reduced picture and most depth maps are such files: it took a quarter of the time until a photo was first seen.
 */
final class DeepPng {
    private static final int SIGNATURE = 8;
    /** Bytes of a chunk beside what it holds: length and kind before it, a sum behind. */
    private static final int BEFORE = 8;

    private static final int BEHIND = 4;
    /** Where the header says what. */
    private static final int WIDTH_AT = 0;

    private static final int HEIGHT_AT = 4;
    private static final int DEPTH_AT = 8;
    private static final int COLOUR_AT = 9;
    private static final int INTERLACE_AT = 12;
    private static final int HEADER = 13;

    private static final int GREY = 0;
    private static final int RGB = 2;

    private final byte[] file;
    private int at = SIGNATURE;

    private DeepPng(byte[] file) {
        this.file = file;
    }

    /**
     * Null when the file is of another kind, or anything is wrong with it: the platform's reader is to say what.
     *
     * @param file whose size has been looked at
     */
    static @Nullable BufferedImage read(byte[] file) {
        try {
            return new DeepPng(file).read();
        } catch (DataFormatException | IndexOutOfBoundsException damaged) {
            return null;
        }
    }

    private @Nullable BufferedImage read() throws DataFormatException {
        if (number(0) != 0x89504e47 || number(SIGNATURE) != HEADER || !is("IHDR")) {
            return null;
        }
        int header = SIGNATURE + BEFORE;
        int colour = file[header + COLOUR_AT];
        if (file[header + DEPTH_AT] != 16 || colour != GREY && colour != RGB || file[header + INTERLACE_AT] != 0) {
            return null;
        }
        int bands = colour == GREY ? 1 : 3;
        int width = number(header + WIDTH_AT);
        int height = number(header + HEIGHT_AT);
        if (width < 1 || height < 1 || (long) width * height * bands > Integer.MAX_VALUE / 2) {
            return null;
        }
        do {
            next();
            if (is("tRNS")) {
                return null;
            }
        } while (!is("IDAT"));
        WritableRaster raster = Raster.createInterleavedRaster(DataBuffer.TYPE_USHORT, width, height, bands, null);
        short[] samples = ((DataBufferUShort) raster.getDataBuffer()).getData();
        Inflater inflater = new Inflater();
        try {
            unpack(inflater, samples, width * bands, height, 2 * bands);
        } finally {
            inflater.end();
        }
        ColorSpace space = ColorSpace.getInstance(bands == 1 ? ColorSpace.CS_GRAY : ColorSpace.CS_sRGB);
        ComponentColorModel model =
                new ComponentColorModel(space, false, false, ComponentColorModel.OPAQUE, DataBuffer.TYPE_USHORT);
        return new BufferedImage(model, raster, false, null);
    }

    /** @param before bytes from a sample to the same one of the pixel before */
    private void unpack(Inflater inflater, short[] samples, int samplesAcross, int height, int before)
            throws DataFormatException {
        int length = 2 * samplesAcross;
        byte[] line = new byte[1 + length];
        byte[] row = new byte[before + length];
        byte[] above = new byte[before + length];
        give(inflater);
        for (int y = 0; y < height; y++) {
            fill(inflater, line);
            System.arraycopy(line, 1, row, before, length);
            restore(line[0], row, above, before);
            for (int i = 0, from = before, to = y * samplesAcross; i < samplesAcross; i++, from += 2) {
                samples[to + i] = (short) (row[from] << 8 | row[from + 1] & 0xff);
            }
            byte[] done = row;
            row = above;
            above = done;
        }
    }

    private void fill(Inflater inflater, byte[] line) throws DataFormatException {
        for (int got = 0; got < line.length; ) {
            int more = inflater.inflate(line, got, line.length - got);
            got += more;
            if (more == 0) {
                if (!inflater.needsInput()) {
                    throw new DataFormatException("less than the header says");
                }
                next();
                give(inflater);
            }
        }
    }

    private void give(Inflater inflater) throws DataFormatException {
        if (!is("IDAT")) {
            throw new DataFormatException("cut off");
        }
        inflater.setInput(file, at + BEFORE, Math.min(number(at), file.length - at - BEFORE));
    }

    /** Undoes the filter of a row in place; before the first pixel lie zeros. */
    private static void restore(int filter, byte[] row, byte[] above, int before) throws DataFormatException {
        switch (filter) {
            case 0 -> {}
            case 1 -> {
                for (int i = before; i < row.length; i++) {
                    row[i] += row[i - before];
                }
            }
            case 2 -> {
                for (int i = before; i < row.length; i++) {
                    row[i] += above[i];
                }
            }
            case 3 -> {
                for (int i = before; i < row.length; i++) {
                    row[i] += (byte) ((row[i - before] & 0xff) + (above[i] & 0xff) >> 1);
                }
            }
            case 4 -> {
                for (int i = before; i < row.length; i++) {
                    row[i] += (byte) paeth(row[i - before] & 0xff, above[i] & 0xff, above[i - before] & 0xff);
                }
            }
            default -> throw new DataFormatException("a filter that there is not");
        }
    }

    /** Of left, above and above left the one that is nearest to what they let expect. */
    private static int paeth(int left, int above, int corner) {
        int toLeft = Math.abs(above - corner);
        int toAbove = Math.abs(left - corner);
        int toCorner = Math.abs(left + above - 2 * corner);
        return toLeft <= toAbove && toLeft <= toCorner ? left : toAbove <= toCorner ? above : corner;
    }

    /** Goes to the next chunk. */
    private void next() throws DataFormatException {
        int length = number(at);
        if (length < 0 || length > file.length - at - BEFORE - BEHIND) {
            throw new DataFormatException("cut off");
        }
        at += BEFORE + length + BEHIND;
    }

    private boolean is(String kind) {
        return new String(file, at + 4, 4, StandardCharsets.ISO_8859_1).equals(kind);
    }

    private int number(int from) {
        return file[from] << 24 | (file[from + 1] & 0xff) << 16 | (file[from + 2] & 0xff) << 8 | file[from + 3] & 0xff;
    }
}
