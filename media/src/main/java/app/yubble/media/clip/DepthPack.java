package app.yubble.media.clip;

import app.yubble.core.depth.DepthEstimate;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Resample;
import app.yubble.core.subject.Subject;
import app.yubble.media.picture.PictureWriter;
import java.awt.image.BufferedImage;
import java.awt.image.Raster;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.HashMap;
import java.util.Map;
import java.util.TreeMap;
import java.util.zip.ZipEntry;
import java.util.zip.ZipInputStream;
import java.util.zip.ZipOutputStream;
import javax.imageio.ImageIO;

/**
 * Depth of a stretch of frames as it is stored: a zip of 16-bit grey PNG files. Of frame 12 there are {@code 12-nearness.png} and, with a
 * confidence of 0.875 in the subject, {@code 12-matte-8750.png}. Nearness of estimates is kept to {@value #NEARNESS_BITS} bits and at a
 * longer side of {@value #NEARNESS_SIDE}, mattes to eight bits as they are: 40 to 130 kB a frame.
 */
public final class DepthPack {
    /** Frames of a pack: a second of film, read at once. */
    public static final int FRAMES = 24;

    /** Estimates have less than that; their edges come from the picture. */
    private static final int NEARNESS_SIDE = 256;
    /** Steps of a 4096th are finer than a disc's radius can show at 4K. */
    private static final int NEARNESS_BITS = 12;

    private static final int MATTE_BITS = 8;
    private static final String NEARNESS = "-nearness.png";
    private static final String MATTE = "-matte-";
    private static final String PNG = ".png";
    /** Steps of a confidence in a name. */
    private static final double CONFIDENCE_STEPS = 10_000;

    private final TreeMap<Integer, DepthEstimate> frames = new TreeMap<>();
    private final int nearnessSide;

    private DepthPack(int nearnessSide) {
        this.nearnessSide = nearnessSide;
    }

    /** For estimates. */
    public static DepthPack ofEstimates() {
        return new DepthPack(NEARNESS_SIDE);
    }

    /** For maps that somebody made, which are kept at their own size. */
    public static DepthPack ofMaps() {
        return new DepthPack(Integer.MAX_VALUE);
    }

    public void add(int frame, DepthEstimate estimate) {
        Plane nearness = estimate.nearness();
        frames.put(
                frame,
                new DepthEstimate(
                        Resample.toSize(nearness, nearness.size().fitting(nearnessSide)), estimate.subject()));
    }

    public int count() {
        return frames.size();
    }

    public byte[] write() {
        ByteArrayOutputStream out = new ByteArrayOutputStream(1 << 20);
        try (ZipOutputStream zip = new ZipOutputStream(out, StandardCharsets.UTF_8)) {
            // PNG files are deflated already.
            zip.setLevel(0);
            for (var each : frames.entrySet()) {
                put(zip, each.getKey() + NEARNESS, each.getValue().nearness(), NEARNESS_BITS);
                Subject subject = each.getValue().subject();
                if (subject != null) {
                    long confidence = Math.round(subject.confidence() * CONFIDENCE_STEPS);
                    put(zip, each.getKey() + MATTE + confidence + PNG, subject.matte(), MATTE_BITS);
                }
            }
        } catch (IOException fault) {
            throw new UncheckedIOException("depth could not be packed", fault);
        }
        return out.toByteArray();
    }

    private static void put(ZipOutputStream zip, String name, Plane plane, int bits) throws IOException {
        ZipEntry entry = new ZipEntry(name);
        entry.setTime(0);
        zip.putNextEntry(entry);
        int steps = (1 << bits) - 1;
        Plane rounded = new Plane(plane.size());
        for (int i = 0; i < rounded.samples().length; i++) {
            rounded.samples()[i] = Math.round(Math.max(0, Math.min(1, plane.samples()[i])) * steps) / (float) steps;
        }
        PictureWriter.writeGrey(rounded, zip);
        zip.closeEntry();
    }

    /** The depth of all frames in a pack, by frame. */
    public static Map<Integer, DepthEstimate> read(byte[] pack) {
        Map<Integer, Plane> nearness = new HashMap<>();
        Map<Integer, Subject> subjects = new HashMap<>();
        try (ZipInputStream zip = new ZipInputStream(new ByteArrayInputStream(pack), StandardCharsets.UTF_8)) {
            for (ZipEntry entry = zip.getNextEntry(); entry != null; entry = zip.getNextEntry()) {
                String name = entry.getName();
                int frame = Integer.parseInt(name.substring(0, name.indexOf('-')));
                Plane plane = plane(zip.readAllBytes());
                if (name.endsWith(NEARNESS)) {
                    nearness.put(frame, plane);
                } else {
                    String steps = name.substring(name.lastIndexOf('-') + 1, name.length() - PNG.length());
                    subjects.put(frame, new Subject(plane, Integer.parseInt(steps) / CONFIDENCE_STEPS));
                }
            }
        } catch (IOException fault) {
            throw new UncheckedIOException("stored depth cannot be read", fault);
        }
        Map<Integer, DepthEstimate> out = new HashMap<>();
        nearness.forEach((frame, plane) -> out.put(frame, new DepthEstimate(plane, subjects.get(frame))));
        return out;
    }

    private static Plane plane(byte[] png) throws IOException {
        BufferedImage image = ImageIO.read(new ByteArrayInputStream(png));
        Raster raster = image.getRaster();
        float[] samples = raster.getSamples(
                0, 0, image.getWidth(), image.getHeight(), 0, new float[image.getWidth() * image.getHeight()]);
        float most = (1 << image.getColorModel().getComponentSize(0)) - 1;
        for (int i = 0; i < samples.length; i++) {
            samples[i] /= most;
        }
        return new Plane(image.getWidth(), image.getHeight(), samples);
    }
}
