package app.yubble.bench;

import app.yubble.core.raster.Plane;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.ArrayList;
import java.util.HexFormat;
import java.util.List;
import tools.jackson.databind.json.JsonMapper;

/**
 * A photo that a Debian package ships, with points that somebody ranked by eye.
 *
 * @param kind of what it shows
 * @param file where the package puts it
 * @param sha256 of the photo that was looked at
 */
record RankedPhoto(String kind, String packageName, String file, String sha256, List<Point> points) {
    /** Of every so many photos one is kept apart. */
    private static final int APART = 3;
    /** Hexadecimal digits of the hash that decide which. */
    private static final int DIGITS = 8;

    /**
     * A place.
     *
     * @param x in shares of the width
     * @param y in shares of the height
     * @param rank 1 is nearest; equal ranks say nothing
     * @param what stands there
     */
    record Point(double x, double y, int rank, String what) {
        double of(Plane plane) {
            int column = Math.min(plane.width() - 1, (int) (x * plane.width()));
            int row = Math.min(plane.height() - 1, (int) (y * plane.height()));
            return plane.samples()[row * plane.width() + column];
        }
    }

    /** Two of its points. */
    record Pair(Point near, Point far) {
        /** Whether the height in the picture alone says so too. */
        boolean isLowerNearer() {
            return near.y() > far.y();
        }
    }

    record All(String about, List<RankedPhoto> photos) {}

    static List<RankedPhoto> read(Path file) throws IOException {
        return JsonMapper.shared()
                .readValue(Files.readAllBytes(file), All.class)
                .photos();
    }

    /** Whether it is kept apart: never taught, never looked at while something is being made better. */
    boolean isApart() {
        return Long.parseLong(sha256.substring(0, DIGITS), 16) % APART == 0;
    }

    /** Whether the file is the photo that was looked at. */
    boolean isIn(Path root) throws IOException {
        Path path = in(root);
        if (!Files.isRegularFile(path)) {
            return false;
        }
        try {
            byte[] digest = MessageDigest.getInstance("SHA-256").digest(Files.readAllBytes(path));
            return HexFormat.of().formatHex(digest).equals(sha256);
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException("every Java platform has SHA-256", e);
        }
    }

    Path in(Path root) {
        return root.resolve(file.substring(1));
    }

    /** Every two points of different rank. */
    List<Pair> pairs() {
        List<Pair> out = new ArrayList<>();
        for (Point near : points) {
            for (Point far : points) {
                if (near.rank() < far.rank()) {
                    out.add(new Pair(near, far));
                }
            }
        }
        return out;
    }
}
