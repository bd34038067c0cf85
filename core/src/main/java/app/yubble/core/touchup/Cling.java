package app.yubble.core.touchup;

import app.yubble.core.raster.CostSpread;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Region;
import app.yubble.core.raster.Resample;
import app.yubble.core.raster.RunningExtreme;
import app.yubble.core.raster.Size;
import app.yubble.core.subject.MatteRefiner;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;

/**
 * Keeps the paint of a stroke inside what it started on.
 *
 * <p>The way from the line to a pixel costs what colour or depth changes on it (geodesic distance; see Bai and Sapiro, "A
 * Geodesic Framework for Fast Interactive Image and Video Segmentation and Matting", 2007), and what its colour differs from
 * all that the line has run over. Where the line itself runs over an edge it stops giving paint until
 * it is back, or until nothing of what it started on lies under the brush. Paint ends
 * where the cost passes a limit; the border is then brought to the picture's edges, down to hair, as a matte is.
 *
 * <p>This is done at a size at which the brush is {@value #DIAMETER} pixels wide, so a preview and a delivery agree, and only
 * the border within what is looked at costs what the picture measures.
 */
final class Cling {
    /** Pixels of a brush at the size at which ways are found. */
    private static final int DIAMETER = 64;
    // Borders are brought to edges at a size at which the brush is so wide, as far as a matte would be.
    private static final int FITTED_DIAMETER = 384;
    /** Pixels up to which a long stroke is worked on as a whole. */
    private static final int MOST_FITTED = 1024;
    // The border must lie within what is looked at, also where it is the brush's own.
    private static final double WIDER = 1.3;
    /**
     * Colour distance that stops paint at hardly any cling. This and what follows by eye on the figurine, and held by
     * TouchupRepairTest.
     */
    private static final float LOOSEST = 0.5f;
    /** The same at full cling: grain of a face does not stop it. */
    private static final float TIGHTEST = 0.05f;
    // Changes below this from pixel to pixel are grain.
    private static final float GRAIN = 0.03f;
    /** Cost of a step where nothing changes, over the limit. */
    private static final float PER_STEP = 0.002f;
    /** What being unlike the stroke's colours costs. */
    private static final float UNLIKE = 0.5f;
    /** That a stroke can be taken to have started on. */
    private static final int MOST_COLOURS = 16;
    /** Of taking in colours beside those that are known. */
    private static final int MOST_ROUNDS = 6;
    /** Pixels of gaps that are closed: highlights and grain. */
    private static final int CLOSED = 2;
    // Brushes that are small in the picture are looked at in their part of it, wide ones in a smaller picture.
    private static final int LEAST_SIDE = 128;
    /** Longer side of the size that is worked at. */
    private static final int MOST_SIDE = 2048;

    private final Stroke stroke;
    private final float limit;
    private final Size size;
    private final Region box;
    /** The box reduced: channels that are compared. */
    private final float[][] channels;

    private final int width;
    private final int height;
    private final float[] domain;
    private final List<float[]> colours = new ArrayList<>();
    private final CostSpread ways;

    private Cling(Stroke stroke, Mask wide, Region box, Canvas canvas) {
        this.stroke = stroke;
        this.size = wide.picture();
        this.box = box;
        limit = TIGHTEST + (float) ((1 - stroke.brush().cling()) * (LOOSEST - TIGHTEST));
        double diameter = stroke.brush().size() * size.longSide();
        double step = Math.max(1, diameter / DIAMETER);
        width = Math.max(1, (int) Math.round(box.width() / step));
        height = Math.max(1, (int) Math.round(box.height() / step));
        Size reduced = new Size(width, height);
        List<float[]> planes = new ArrayList<>();
        if (stroke.brush().edges() != Stroke.Edges.DEPTH) {
            for (Plane plane : Resample.crop(canvas.picture(size), box).planes()) {
                planes.add(Resample.toSize(plane, reduced).rooted().samples());
            }
        }
        if (stroke.brush().edges() != Stroke.Edges.PHOTO) {
            planes.add(Resample.toSize(Resample.crop(canvas.nearness(size), box), reduced)
                    .samples());
        }
        channels = planes.toArray(float[][]::new);
        Plane covered = new Plane(box.width(), box.height());
        for (int i = 0; i < covered.samples().length; i++) {
            covered.samples()[i] = wide.share(i);
        }
        domain = Resample.toSize(covered, reduced).samples();
        ways = new CostSpread(reduced, limit) {
            @Override
            protected float step(int from, int to) {
                return PER_STEP * limit + Math.max(0, distance(from, to) - GRAIN);
            }

            @Override
            protected boolean isOpen(int place) {
                return domain[place] > 0;
            }
        };
    }

    /** @param footprint of the stroke, or of a part of it that is wanted */
    static Mask within(Mask footprint, Stroke stroke, Canvas canvas) {
        Stroke.Brush brush = stroke.brush();
        Stroke.Brush wider = new Stroke.Brush(
                false, Math.min(2, brush.size() * WIDER), 0, 1, brush.cling(), brush.edges(), brush.pressure());
        Size size = footprint.picture();
        Size from = lookedAt(brush.size(), size);
        Mask wide = Footprint.of(new Stroke(wider, stroke.points()), from);
        if (footprint.box() == null || wide.box() == null) {
            return footprint;
        }
        Cling cling = new Cling(stroke, wide, wide.box(), canvas);
        cling.run();
        Plane inside = cling.inside();
        if (cling.nothingCut(inside)) {
            return footprint;
        }
        Region box =
                wide.box().scaled((double) size.width() / from.width(), (double) size.height() / from.height(), size);
        Region part = footprint.box().meet(box);
        if (part == null) {
            return Mask.empty(size);
        }
        Plane fine = brush.edges() == Stroke.Edges.DEPTH
                ? Resample.crop(Resample.toSize(inside, box.size()), part.from(box))
                : MatteRefiner.refine(inside, canvas.picture(size), box, part, fittingSide(brush, box, size));
        return cut(footprint, footprint.box(), fine, part);
    }

    /** One of few sizes of the whole picture, so that all brushes of about a size share it. */
    private static Size lookedAt(double brush, Size size) {
        int side = LEAST_SIDE;
        while (side * brush < DIAMETER && side < MOST_SIDE) {
            side *= 2;
        }
        return side * brush < DIAMETER || side >= size.longSide() ? size : size.fitting(side);
    }

    private static int fittingSide(Stroke.Brush brush, Region box, Size size) {
        double diameters = box.size().longSide() / (brush.size() * size.longSide());
        return (int) Math.max(FITTED_DIAMETER, Math.min(MOST_FITTED, Math.ceil(FITTED_DIAMETER * diameters)));
    }

    /** @param fine of {@code part}; nothing is left outside it */
    private static Mask cut(Mask footprint, Region own, Plane fine, Region part) {
        float[] out = new float[fine.samples().length];
        for (int y = 0, i = 0; y < part.height(); y++) {
            int at = (y + part.y() - own.y()) * own.width() + part.x() - own.x();
            for (int x = 0; x < part.width(); x++, i++) {
                out[i] = footprint.share(at + x) * fine.samples()[i];
            }
        }
        return Mask.of(footprint.picture(), part, out);
    }

    /** Where the line goes, pixel by pixel. */
    private int[] line() {
        int[] out = new int[64];
        int count = 0;
        for (int point = 0; point < stroke.count(); point++) {
            int next = Math.min(stroke.count() - 1, point + 1);
            double length = Math.hypot(
                    column(stroke.x(next)) - column(stroke.x(point)), row(stroke.y(next)) - row(stroke.y(point)));
            int steps = (int) Math.max(1, Math.ceil(length));
            for (int i = 0; i < steps; i++) {
                double along = (double) i / steps;
                int x = (int) Math.floor(column(stroke.x(point) + along * (stroke.x(next) - stroke.x(point))));
                int y = (int) Math.floor(row(stroke.y(point) + along * (stroke.y(next) - stroke.y(point))));
                // Where the line runs outside but the brush reaches in, what is nearest to the line is what it runs
                // over.
                int place = Math.max(0, Math.min(height - 1, y)) * width + Math.max(0, Math.min(width - 1, x));
                if (domain[place] > 0 && (count == 0 || out[count - 1] != place)) {
                    if (count == out.length) {
                        out = Arrays.copyOf(out, 2 * count);
                    }
                    out[count++] = place;
                }
            }
        }
        return Arrays.copyOf(out, count);
    }

    /** Starts from every place of the line that is on what it started on, and spreads from there; then again for the rest. */
    private void run() {
        int[] line = line();
        boolean more = true;
        for (int round = 0; more && round < MOST_ROUNDS; round++) {
            more = start(line, round > 0);
            ways.spread();
        }
    }

    /**
     * Walks along the line.
     *
     * @param anew whether it may start on something else where nothing of what it started on lies under the brush any more
     * @return whether a new start was found
     */
    private boolean start(int[] line, boolean anew) {
        boolean found = false;
        float barrier = 0;
        for (int i = 0; i < line.length; i++) {
            int place = line[i];
            float like = unlikeness(place);
            barrier = ways.cost(place) == 0 || like < limit / 2
                    ? 0
                    : barrier + (i == 0 ? 0 : Math.max(0, distance(place, line[i - 1]) - GRAIN));
            boolean here = barrier < limit || colours.isEmpty();
            if (!here && anew && nothingAround(place)) {
                here = true;
                barrier = 0;
            }
            if (here && ways.cost(place) > 0) {
                if (like > limit / 4 && colours.size() < MOST_COLOURS) {
                    colours.add(colour(place));
                }
                ways.start(place);
                found = true;
            }
        }
        return found;
    }

    private boolean nothingAround(int place) {
        double radius = stroke.brush().size() * size.longSide() / 2 * width / box.width();
        for (int ring = 1; ring <= 4; ring++) {
            for (int direction = 0; direction < 16; direction++) {
                double angle = direction * Math.PI / 8;
                int x = (int) Math.round(place % width + Math.cos(angle) * radius * ring / 4);
                int y = (int) Math.round(place / width + Math.sin(angle) * radius * ring / 4);
                if (x >= 0 && y >= 0 && x < width && y < height && ways.cost(y * width + x) < limit) {
                    return false;
                }
            }
        }
        return true;
    }

    private double column(double x) {
        return (x * size.width() - box.x()) * width / box.width();
    }

    private double row(double y) {
        return (y * size.height() - box.y()) * height / box.height();
    }

    private float[] colour(int place) {
        float[] out = new float[channels.length];
        for (int c = 0; c < out.length; c++) {
            out[c] = channels[c][place];
        }
        return out;
    }

    private float distance(int a, int b) {
        float sum = 0;
        for (float[] channel : channels) {
            float d = channel[a] - channel[b];
            sum += d * d;
        }
        return (float) Math.sqrt(sum);
    }

    /** How far a place's colour is from all that the line has run over; very far before there is any. */
    private float unlikeness(int place) {
        float least = 4;
        for (float[] colour : colours) {
            float sum = 0;
            for (int c = 0; c < channels.length; c++) {
                float d = channels[c][place] - colour[c];
                sum += d * d;
            }
            least = Math.min(least, sum);
        }
        return (float) Math.sqrt(least);
    }

    private boolean nothingCut(Plane inside) {
        for (int i = 0; i < domain.length; i++) {
            if (domain[i] > 0 && inside.samples()[i] < 1) {
                return false;
            }
        }
        return true;
    }

    /** 1 where paint belongs, 0 where it does not. */
    private Plane inside() {
        float[] out = new float[width * height];
        for (int i = 0; i < out.length; i++) {
            if (ways.cost(i) < limit) {
                float whole = ways.cost(i) + UNLIKE * Math.max(0, unlikeness(i) - limit);
                float t = Math.max(0, Math.min(1, (limit - whole) / (0.4f * limit)));
                out[i] = t * t * (3 - 2 * t);
            }
        }
        // Grooves and spots narrower than this belong to what is around them; what is seen between them is put right
        // later.
        Plane plane = new Plane(width, height, out);
        return RunningExtreme.octagon(RunningExtreme.octagon(plane, CLOSED, true), CLOSED, false);
    }
}
