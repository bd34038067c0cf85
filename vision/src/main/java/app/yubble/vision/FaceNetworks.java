package app.yubble.vision;

import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Progress;
import app.yubble.core.raster.Region;
import app.yubble.core.raster.Resample;
import app.yubble.core.raster.Size;
import app.yubble.core.subject.Face;
import app.yubble.core.subject.FaceFinder;
import java.nio.FloatBuffer;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;

/**
 * Faces from two small networks (Bazarevsky et al., "BlazeFace", 2019): one for faces that fill much of what it sees, one for smaller
 * ones. Both see the whole picture; the second also sees squares of it, so that a face of a twentieth of the picture is large
 * enough for it.
 *
 * <p>A network answers for a fixed grid of anchors: a score, and a box and six points as distances from the anchor's middle. Answers for one
 * face are put together to their mean, weighted by score.
 */
public final class FaceNetworks implements FaceFinder {
    public static final String LICENCE = "Apache-2.0";

    private static final String INPUT = "input:0";
    /** Scores of the fine grid and of the coarse one, then boxes and points of both. */
    private static final List<String> OUTPUTS = List.of("Identity:0", "Identity_1:0", "Identity_2:0", "Identity_3:0");
    /** Cells on a side of the fine grid, and anchors in each. */
    private static final int[] FINE = {16, 2};
    /** The same of the coarse grid. */
    private static final int[] COARSE = {8, 6};
    /** Numbers of one anchor: box and six points. */
    private static final int NUMBERS = 16;
    /** Score of an answer that takes part. */
    private static final double LEAST_SCORE = 0.5;
    /** Score of the best answer of a face. Tried on photos with and without faces. */
    private static final double SURE = 0.8;
    /** The same of the closer look. */
    private static final double SURE_AGAIN = 0.65;
    /** Overlap over union from which two answers are one face. */
    private static final double SAME = 0.3;
    /** Share of the smaller box that lies in the other, from which they are one face too: two squares see different parts of it. */
    private static final double INSIDE = 0.7;
    /** Side of the square of a closer look, over the face's. */
    private static final double CLOSER = 2;
    /** Squares of the picture, over its longer side. */
    private static final double SQUARE = 0.5;
    /** Share by which squares overlap at least: a face on the border of one is whole in the next. */
    private static final double OVERLAP = 0.3;
    /** Longer side at which is looked; a square of it is about as large as the network's input. */
    private static final int LOOKED_AT = 640;

    private final Network far;
    private final Network near;

    /** @param folder with {@link ModelFolder#hasFaceNetworks} */
    public FaceNetworks(ModelFolder folder) {
        far = network(folder.farFaces());
        near = network(folder.nearFaces());
    }

    private static Network network(Path file) {
        return Network.ofFile(file, 0.05);
    }

    /** An answer in pixels of the picture looked at: left, top, right, bottom, then both eyes. */
    private record Answer(double[] at, double score) {
        double area() {
            return Math.max(0, at[2] - at[0]) * Math.max(0, at[3] - at[1]);
        }

        double shared(Answer other) {
            double width = Math.min(at[2], other.at[2]) - Math.max(at[0], other.at[0]);
            double height = Math.min(at[3], other.at[3]) - Math.max(at[1], other.at[1]);
            return Math.max(0, width) * Math.max(0, height);
        }

        boolean isAlike(Answer other) {
            double both = shared(other);
            return both > SAME * (area() + other.area() - both);
        }

        boolean isSame(Answer other) {
            return isAlike(other) || shared(other) > INSIDE * Math.min(area(), other.area());
        }
    }

    @Override
    public List<Face> find(Picture picture, Progress progress) {
        Size size = picture.size().fitting(LOOKED_AT);
        Picture seen = Resample.toSize(picture, size);
        List<Answer> answers = new ArrayList<>();
        Region all = Region.all(size);
        look(near, 128, seen, all, answers, progress);
        look(far, 256, seen, all, answers, progress);
        int side = (int) Math.round(size.longSide() * SQUARE);
        for (int y : starts(size.height(), side)) {
            for (int x : starts(size.width(), side)) {
                Region square = new Region(x, y, Math.min(side, size.width() - x), Math.min(side, size.height() - y));
                look(far, 256, seen, square, answers, progress);
            }
        }
        return answersOfFaces(answers).stream()
                .filter(each -> isSeenAgain(each, picture, (double) picture.width() / size.width(), progress))
                .map(each -> face(each, size))
                .sorted(Comparator.comparingDouble(FaceNetworks::weight).reversed())
                .toList();
    }

    /** A closer look by the network for large faces: what only looked like a face from afar is none to it. */
    private boolean isSeenAgain(Answer face, Picture picture, double scale, Progress progress) {
        Answer own =
                new Answer(Arrays.stream(face.at()).map(each -> each * scale).toArray(), face.score());
        double side = CLOSER * Math.max(own.at()[2] - own.at()[0], own.at()[3] - own.at()[1]);
        int left = (int) Math.max(0, Math.min(picture.width() - 1, (own.at()[0] + own.at()[2] - side) / 2));
        int top = (int) Math.max(0, Math.min(picture.height() - 1, (own.at()[1] + own.at()[3] - side) / 2));
        Region around = new Region(left, top, (int) Math.max(1, Math.min(side, picture.width() - left)), (int)
                Math.max(1, Math.min(side, picture.height() - top)));
        List<Answer> again = new ArrayList<>();
        look(near, 128, picture, around, again, progress);
        return again.stream().anyMatch(each -> each.score() >= SURE_AGAIN && each.isSame(own));
    }

    /** Where squares begin so that they cover a length with some overlap. */
    private static int[] starts(int length, int side) {
        if (length <= side) {
            return new int[] {0};
        }
        int count = 1 + (int) Math.ceil((length - side) / (side * (1 - OVERLAP)));
        return IntStream.range(0, count)
                .map(i -> (length - side) * i / (count - 1))
                .toArray();
    }

    private static void look(
            Network network, int side, Picture seen, Region part, List<Answer> answers, Progress progress) {
        // Fitted into the square, grey around it.
        double scale = (double) side / part.size().longSide();
        Size fitted = new Size(Math.max(1, (int) Math.round(part.width() * scale)), Math.max(1, (int)
                Math.round(part.height() * scale)));
        Picture small = Resample.toSize(Resample.crop(seen, part), fitted);
        FloatBuffer in = NetworkInput.floats(3L * side * side);
        for (int y = 0; y < side; y++) {
            for (int x = 0; x < side; x++) {
                boolean inside = x < fitted.width() && y < fitted.height();
                for (int c = 0; c < 3; c++) {
                    in.put(inside ? 2 * NetworkInput.coded(small.planes().get(c).at(x, y)) - 1 : 0);
                }
            }
        }
        List<Network.Tensor> out =
                network.run(Map.of(INPUT, new Network.Tensor(new long[] {1, side, side, 3}, in)), OUTPUTS, progress);
        decode(out.get(0), out.get(2), FINE, side, part, scale, answers);
        decode(out.get(1), out.get(3), COARSE, side, part, scale, answers);
    }

    private static void decode(
            Network.Tensor scores,
            Network.Tensor numbers,
            int[] grid,
            int side,
            Region part,
            double scale,
            List<Answer> answers) {
        FloatBuffer score = scores.samples();
        FloatBuffer number = numbers.samples();
        for (int i = 0; i < grid[0] * grid[0] * grid[1]; i++) {
            double sure = 1 / (1 + Math.exp(-score.get(i)));
            if (sure < LEAST_SCORE) {
                continue;
            }
            int cell = i / grid[1];
            double x = (cell % grid[0] + 0.5) / grid[0] * side;
            double y = (cell / grid[0] + 0.5) / grid[0] * side;
            int at = i * NUMBERS;
            double middleX = x + number.get(at);
            double middleY = y + number.get(at + 1);
            double halfWidth = number.get(at + 2) / 2;
            double halfHeight = number.get(at + 3) / 2;
            double[] found = {
                middleX - halfWidth,
                middleY - halfHeight,
                middleX + halfWidth,
                middleY + halfHeight,
                x + number.get(at + 4),
                y + number.get(at + 5),
                x + number.get(at + 6),
                y + number.get(at + 7)
            };
            for (int k = 0; k < found.length; k++) {
                found[k] = found[k] / scale + (k % 2 == 0 ? part.x() : part.y());
            }
            answers.add(new Answer(found, sure));
        }
    }

    private static List<Answer> answersOfFaces(List<Answer> answers) {
        List<Answer> left = new ArrayList<>(answers);
        left.sort(Comparator.comparingDouble(Answer::score).reversed());
        List<Answer> faces = new ArrayList<>();
        while (!left.isEmpty() && left.get(0).score() >= SURE) {
            Answer best = left.get(0);
            faces.add(mean(left.stream().filter(best::isAlike).toList(), best.score()));
            left.removeIf(best::isSame);
            left.remove(best);
        }
        return faces;
    }

    private static Answer mean(List<Answer> same, double sure) {
        double[] sum = new double[8];
        double weight = 0;
        for (Answer each : same) {
            for (int k = 0; k < sum.length; k++) {
                sum[k] += each.score() * each.at()[k];
            }
            weight += each.score();
        }
        for (int k = 0; k < sum.length; k++) {
            sum[k] /= weight;
        }
        return new Answer(sum, sure);
    }

    private static Face face(Answer answer, Size size) {
        double[] sum = new double[8];
        for (int k = 0; k < sum.length; k++) {
            sum[k] = answer.at()[k] / (k % 2 == 0 ? size.width() : size.height());
        }
        return new Face(
                sum[0],
                sum[1],
                sum[2] - sum[0],
                sum[3] - sum[1],
                new Face.Point(sum[4], sum[5]),
                new Face.Point(sum[6], sum[7]),
                answer.score());
    }

    /** The larger and the nearer to the middle, the more it is the main one. */
    private static double weight(Face face) {
        double dx = face.middle().x() - 0.5;
        double dy = face.middle().y() - 0.5;
        return face.area() * Math.exp(-2 * (dx * dx + dy * dy));
    }
}
