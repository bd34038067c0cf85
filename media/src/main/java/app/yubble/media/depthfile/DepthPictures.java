package app.yubble.media.depthfile;

import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Size;
import app.yubble.media.picture.JpegSegments;
import app.yubble.media.picture.PictureReader;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Depth pictures that follow a photo in one JPEG file.
 *
 * <p>Where they are says the multi-picture index, or a container directory in the photo's metadata, or the next start of a
 * picture. That one of them is depth says the directory ({@code Semantic="Depth"}) or the picture's own metadata, which
 * calls it an auxiliary picture of depth or disparity; a grey picture of the photo's shape that the index lists without
 * any type counts too, unless its metadata calls it a gain map.
 */
final class DepthPictures {
    private static final int INDEX_ENTRIES = 0xb002;
    private static final int ENTRY_BYTES = 16;
    private static final int MOST_PICTURES = 64;
    private static final Pattern ITEM = Pattern.compile("<[\\w:]*Item\\b[^>]*>");

    private final PictureReader pictures;
    private final byte[] file;

    DepthPictures(PictureReader pictures, byte[] file) {
        this.pictures = pictures;
        this.file = file;
    }

    /** Part of the file from {@code from} (inclusive) to {@code to} (exclusive), and what the directory calls it. */
    private record Part(int from, int to, String semantic, boolean untyped) {}

    Optional<CameraDepth> find(Size photo) {
        String metadata = new String(JpegParts.xmp(file, 0), StandardCharsets.UTF_8);
        List<Part> parts = directory(metadata);
        parts.addAll(index());
        for (Part part : parts) {
            String own = new String(JpegParts.xmp(file, part.from()), StandardCharsets.UTF_8).toLowerCase(Locale.ROOT);
            boolean gain = own.contains("hdrgm:") || own.contains("gainmap");
            boolean auxiliary =
                    own.contains("auxiliaryimagetype") && (own.contains("depth") || own.contains("disparity"));
            boolean said = part.semantic().equals("depth");
            if (said || auxiliary || part.untyped() && !gain && isGreyOfShape(part, photo)) {
                boolean distance = auxiliary && own.contains("depth") && !own.contains("disparity");
                return Optional.of(read(part, said || distance));
            }
        }
        return Optional.empty();
    }

    /** @param farIsWhite values count from near to far; else they are disparity, nearest brightest */
    private CameraDepth read(Part part, boolean farIsWhite) {
        Plane plane = DepthFileReader.samples(pictures.readPlain(Arrays.copyOfRange(file, part.from(), part.to())));
        if (farIsWhite) {
            for (int i = 0; i < plane.samples().length; i++) {
                plane.samples()[i] = 1 - plane.samples()[i];
            }
        }
        return new CameraDepth(plane, "depth picture", null, null);
    }

    private boolean isGreyOfShape(Part part, Size photo) {
        for (JpegSegments.Segment segment : JpegSegments.of(file, part.from())) {
            int marker = segment.marker();
            boolean frame = marker >= 0xc0 && marker <= 0xcf && marker != 0xc4 && marker != 0xc8 && marker != 0xcc;
            if (frame && segment.to() - segment.from() >= 6) {
                int at = segment.from();
                int height = (file[at + 1] & 0xff) << 8 | file[at + 2] & 0xff;
                int width = (file[at + 3] & 0xff) << 8 | file[at + 4] & 0xff;
                boolean one = file[at + 5] == 1;
                return one
                        && width > 0
                        && height > 0
                        && (new Size(width, height).hasShapeOf(photo) || new Size(height, width).hasShapeOf(photo));
            }
        }
        return false;
    }

    // Items stand one after the other behind the primary picture, which the directory lists first.
    private List<Part> directory(String metadata) {
        List<Part> parts = new ArrayList<>();
        List<String> semantics = new ArrayList<>();
        List<Integer> lengths = new ArrayList<>();
        Matcher item = ITEM.matcher(metadata);
        while (item.find() && semantics.size() < MOST_PICTURES) {
            String semantic = attribute(item.group(), "Semantic");
            String length = attribute(item.group(), "Length");
            if (!semantic.isEmpty()) {
                semantics.add(semantic.toLowerCase(Locale.ROOT));
                lengths.add(length.matches("\\d{1,9}") ? Integer.valueOf(length) : 0);
            }
        }
        int end = file.length;
        for (int i = semantics.size() - 1; i > 0; i--) {
            int from = end - lengths.get(i);
            if (lengths.get(i) < 4 || from < 4) {
                break;
            }
            parts.add(new Part(from, end, semantics.get(i), false));
            end = from;
        }
        return parts;
    }

    private static String attribute(String element, String name) {
        Matcher found = Pattern.compile("[\\w]+:" + name + "\\s*=\\s*[\"']([^\"']*)[\"']")
                .matcher(element);
        return found.find() ? found.group(1) : "";
    }

    private List<Part> index() {
        List<Part> parts = new ArrayList<>();
        for (JpegSegments.Segment segment : JpegSegments.of(file, 0)) {
            if (segment.marker() == JpegSegments.APP2 && segment.startsWith(file, JpegParts.MULTI_PICTURE)) {
                try {
                    entries(segment.from() + JpegParts.MULTI_PICTURE.length, segment.to(), parts);
                } catch (IndexOutOfBoundsException damaged) {
                    throw new IllegalArgumentException("its index of pictures is damaged", damaged);
                }
            }
        }
        return parts;
    }

    /** @param base where the index's own offsets count from, as do those of the pictures in it */
    private void entries(int base, int end, List<Part> parts) {
        ByteBuffer in = ByteBuffer.wrap(file, 0, end);
        in.order(file[base] == 'I' ? ByteOrder.LITTLE_ENDIAN : ByteOrder.BIG_ENDIAN);
        int directory = base + in.getInt(base + 4);
        int tags = in.getShort(directory) & 0xffff;
        for (int tag = 0; tag < tags; tag++) {
            int at = directory + 2 + 12 * tag;
            if ((in.getShort(at) & 0xffff) != INDEX_ENTRIES) {
                continue;
            }
            int count = Math.min(MOST_PICTURES, in.getInt(at + 4) / ENTRY_BYTES);
            int first = base + in.getInt(at + 8);
            for (int i = 0; i < count; i++) {
                int entry = first + i * ENTRY_BYTES;
                int type = in.getInt(entry) & 0xffffff;
                long size = in.getInt(entry + 4) & 0xffffffffL;
                long from = base + (in.getInt(entry + 8) & 0xffffffffL);
                boolean primary = in.getInt(entry + 8) == 0;
                if (!primary && size >= 4 && from + size <= file.length) {
                    parts.add(new Part((int) from, (int) (from + size), "", type == 0));
                }
            }
        }
    }
}
