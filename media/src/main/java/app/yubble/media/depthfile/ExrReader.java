package app.yubble.media.depthfile;

import app.yubble.core.raster.HalfFloat;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Size;
import app.yubble.media.picture.UnreadablePictureException;
import java.nio.BufferUnderflowException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.zip.DataFormatException;
import java.util.zip.Inflater;

/**
 * Reads one plane from an OpenEXR file (openexr.com, "OpenEXR File Layout"): scan lines of half, float or whole numbers,
 * uncompressed or with run-length or ZIP compression, which is what programs write depth with.
 *
 * <p>A channel named {@code Z} is distance along the axis by the format's convention and becomes inverse distance;
 * otherwise {@code Y} or the mean of R, G and B is nearness as it stands.
 */
record ExrReader(long mostPixels) {
    private static final int MAGIC = 20000630;
    private static final int TILED_DEEP_OR_PARTS = 0x200 | 0x800 | 0x1000;
    private static final int MOST_CHANNELS = 1024;
    /** No compression that is read makes less than a byte of so many. */
    private static final int MOST_PACKED = 1100;

    private static final int[] BYTES = {4, 2, 4};

    private record Channel(String name, int type) {
        int bytes() {
            return BYTES[type];
        }
    }

    static boolean isExr(byte[] file) {
        return file.length > 8 && little(file).getInt(0) == MAGIC;
    }

    private static ByteBuffer little(byte[] bytes) {
        return ByteBuffer.wrap(bytes).order(ByteOrder.LITTLE_ENDIAN);
    }

    Plane read(byte[] file) {
        return parsed(file, Parse::plane);
    }

    /** What the header says. */
    Size size(byte[] file) {
        return parsed(file, parse -> {
            parse.opened();
            return new Size(parse.width, parse.height);
        });
    }

    /** The channels R, G and B as they stand. */
    Picture readColours(byte[] file) {
        return parsed(file, Parse::colours);
    }

    @FunctionalInterface
    private interface Wanted<T> {
        T of(Parse parse) throws DataFormatException;
    }

    private <T> T parsed(byte[] file, Wanted<T> wanted) {
        try {
            return wanted.of(new Parse(file));
        } catch (ArithmeticException
                | BufferUnderflowException
                | IndexOutOfBoundsException
                | DataFormatException fault) {
            throw new UnreadablePictureException("the EXR file is cut off or damaged", fault);
        }
    }

    private final class Parse {
        private final ByteBuffer in;
        private final List<Channel> channels = new ArrayList<>();
        private int compression = -1;
        private int left;
        private int top;
        private int width;
        private int height;

        Parse(byte[] file) {
            in = little(file);
        }

        Plane plane() throws DataFormatException {
            int lines = opened();
            return depth(pixels(lines, wanted()));
        }

        Picture colours() throws DataFormatException {
            int lines = opened();
            List<Channel> wanted = new ArrayList<>();
            for (String name : List.of("R", "G", "B")) {
                channels.stream().filter(channel -> channel.name().equals(name)).forEach(wanted::add);
            }
            if (wanted.size() != 3) {
                throw new UnreadablePictureException("the EXR file holds no red, green and blue");
            }
            List<Plane> planes = pixels(lines, wanted);
            return new Picture(planes.get(0), planes.get(1), planes.get(2));
        }

        /** Reads the header; the answer is how many lines a block holds. */
        private int opened() {
            in.getInt();
            int version = in.getInt();
            if ((version & TILED_DEEP_OR_PARTS) != 0) {
                throw new UnreadablePictureException(
                        "the EXR file is tiled, deep or in several parts; save it as scan lines in one part");
            }
            header();
            if (width < 1 || channels.isEmpty()) {
                throw new UnreadablePictureException("the EXR file does not say how large it is or what it holds");
            }
            return switch (compression) {
                case 0, 1, 2 -> 1;
                case 3 -> 16;
                default ->
                    throw new UnreadablePictureException("the EXR file's compression is not read; save it with ZIP,"
                            + " run-length or no compression");
            };
        }

        private String word() {
            int start = in.position();
            while (in.get() != 0) {
                if (in.position() - start > 255) {
                    throw new UnreadablePictureException("the EXR file's header is damaged");
                }
            }
            return new String(in.array(), start, in.position() - 1 - start, StandardCharsets.ISO_8859_1);
        }

        private void header() {
            for (String name = word(); !name.isEmpty(); name = word()) {
                String type = word();
                int size = in.getInt();
                if (size < 0 || size > in.remaining()) {
                    throw new BufferUnderflowException();
                }
                int end = in.position() + size;
                switch (name + " " + type) {
                    case "channels chlist" -> channels();
                    case "compression compression" -> compression = in.get();
                    case "dataWindow box2i" -> window();
                    default -> in.position(end);
                }
                in.position(end);
            }
        }

        private void channels() {
            for (String name = word(); !name.isEmpty(); name = word()) {
                int type = in.getInt();
                in.getInt();
                int columns = in.getInt();
                int rows = in.getInt();
                boolean whole = columns == 1 && rows == 1;
                if (type < 0 || type >= BYTES.length || !whole || channels.size() >= MOST_CHANNELS) {
                    throw new UnreadablePictureException(
                            "the EXR file's channel " + name + " is of a kind that is not read");
                }
                channels.add(new Channel(name, type));
            }
        }

        private void window() {
            left = in.getInt();
            top = in.getInt();
            long wide = (long) in.getInt() - left + 1;
            long high = (long) in.getInt() - top + 1;
            if (wide < 1 || high < 1 || wide > Integer.MAX_VALUE || wide * high > mostPixels) {
                throw new UnreadablePictureException(String.format(
                        Locale.ROOT,
                        "the EXR file says it is %d x %d pixels; the limit is %d",
                        wide,
                        high,
                        mostPixels));
            }
            width = (int) wide;
            height = (int) high;
        }

        /** One plane for each wanted channel. */
        private List<Plane> pixels(int lines, List<Channel> wanted) throws DataFormatException {
            int row = Math.multiplyExact(
                    channels.stream().mapToInt(Channel::bytes).sum(), width);
            int blocks = (height + lines - 1) / lines;
            // Nothing is allocated for what the file cannot hold.
            if ((long) blocks * Long.BYTES > in.remaining() || (long) row * height / MOST_PACKED > in.remaining()) {
                throw new BufferUnderflowException();
            }
            List<Plane> planes = new ArrayList<>();
            wanted.forEach(channel -> planes.add(new Plane(width, height)));
            long[] offsets = new long[blocks];
            for (int i = 0; i < blocks; i++) {
                offsets[i] = in.getLong();
            }
            for (long offset : offsets) {
                in.position(Math.toIntExact(Math.max(0, Math.min(Integer.MAX_VALUE, offset))));
                int first = in.getInt() - top;
                int size = in.getInt();
                int rows = Math.min(lines, height - first);
                if (first < 0 || rows < 1 || size < 0 || size > in.remaining()) {
                    throw new BufferUnderflowException();
                }
                byte[] packed = new byte[size];
                in.get(packed);
                ByteBuffer block = little(size < rows * row ? unpacked(packed, rows * row) : packed);
                for (int y = first; y < first + rows; y++) {
                    line(block, planes, wanted, y);
                }
            }
            return planes;
        }

        private void line(ByteBuffer block, List<Plane> planes, List<Channel> wanted, int y) {
            for (Channel channel : channels) {
                int index = wanted.indexOf(channel);
                for (int x = 0; x < width; x++) {
                    float value = switch (channel.type()) {
                        case 0 -> block.getInt() & 0xffffffffL;
                        case 1 -> HalfFloat.toFloat(block.getShort());
                        default -> block.getFloat();
                    };
                    if (index >= 0) {
                        planes.get(index).samples()[y * width + x] = value;
                    }
                }
            }
        }

        private List<Channel> wanted() {
            for (String name : List.of("Z", "Y")) {
                for (Channel channel : channels) {
                    if (last(channel.name()).equals(name)) {
                        return List.of(channel);
                    }
                }
            }
            List<Channel> colours = channels.stream()
                    .filter(channel -> List.of("R", "G", "B").contains(last(channel.name())))
                    .toList();
            return colours.isEmpty() ? channels.subList(0, 1) : colours;
        }

        private static String last(String name) {
            return name.substring(name.lastIndexOf('.') + 1).toUpperCase(Locale.ROOT);
        }

        private Plane depth(List<Plane> planes) {
            Plane out = new Plane(width, height);
            boolean distance = last(wanted().get(0).name()).equals("Z");
            for (int i = 0; i < out.samples().length; i++) {
                float sum = 0;
                for (Plane plane : planes) {
                    sum += plane.samples()[i];
                }
                float value = sum / planes.size();
                if (distance && !(value > 0)) {
                    throw new UnreadablePictureException("the EXR file's distances must be over zero, found " + value
                            + " at pixel " + i % width + ", " + i / width);
                }
                out.samples()[i] = distance ? 1 / value : value;
            }
            return distance ? whole(DepthFileReader.ranged(out)) : DepthFileReader.ranged(out);
        }

        // Inverse distances beyond a metre all lie in [0,1]; they too are meant from the farthest to the nearest.
        private static Plane whole(Plane plane) {
            Plane.Range range = plane.range();
            for (int i = 0; range.span() > 0 && i < plane.samples().length; i++) {
                plane.samples()[i] = (plane.samples()[i] - range.low()) / range.span();
            }
            return plane;
        }

        private byte[] unpacked(byte[] packed, int size) throws DataFormatException {
            byte[] bytes = compression == 1 ? runs(packed, size) : inflated(packed, size);
            // Each byte is the difference to the one before; then the two halves are taken in turn.
            for (int i = 1; i < size; i++) {
                bytes[i] = (byte) (bytes[i - 1] + bytes[i] - 128);
            }
            byte[] out = new byte[size];
            int half = (size + 1) / 2;
            for (int i = 0; i < size; i++) {
                out[i] = bytes[(i & 1) == 0 ? i / 2 : half + i / 2];
            }
            return out;
        }

        private static byte[] inflated(byte[] packed, int size) throws DataFormatException {
            Inflater inflater = new Inflater();
            try {
                inflater.setInput(packed);
                byte[] out = new byte[size];
                int done = 0;
                while (done < size) {
                    int count = inflater.inflate(out, done, size - done);
                    if (count == 0) {
                        throw new DataFormatException("a block ends early");
                    }
                    done += count;
                }
                return out;
            } finally {
                inflater.end();
            }
        }

        private static byte[] runs(byte[] packed, int size) {
            byte[] out = new byte[size];
            int to = 0;
            for (int at = 0; at < packed.length; ) {
                int count = packed[at++];
                if (count < 0) {
                    System.arraycopy(packed, at, out, to, -count);
                    at -= count;
                    to -= count;
                } else {
                    java.util.Arrays.fill(out, to, to + count + 1, packed[at++]);
                    to += count + 1;
                }
            }
            return out;
        }
    }
}
