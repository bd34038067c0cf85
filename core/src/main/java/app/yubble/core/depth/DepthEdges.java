package app.yubble.core.depth;

import app.yubble.core.raster.Bands;
import app.yubble.core.raster.BoxMean;
import app.yubble.core.raster.Enlarging;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Region;
import app.yubble.core.raster.Resample;
import app.yubble.core.raster.Size;
import app.yubble.core.subject.Instances;
import app.yubble.core.subject.MatteRefiner;
import java.util.ArrayList;
import java.util.List;

/**
 * Puts the edges of an estimate on the edges of its picture.
 *
 * <p>What goes in: a map whose order is right and whose edges are soft, and the subject's matte when it is clear. What
 * comes out: nearness of every pixel, with edges on the picture's own.
 *
 * <ol>
 *   <li>At a working size the map is taken apart along the matte. The subject's part is read well inside each separate
 *       thing and spread outwards, the rest is read well outside and spread inwards: a soft map is a mixture near the
 *       matte's edge and neither side may learn from it.
 *   <li>Each part is filtered by the main mode of nearness among near pixels of like colour ({@link ModeGrid}).
 *   <li>Each part is enlarged in steps of up to 3.8 along the picture ({@link EdgeStep}).
 *   <li>At the full size the matte, refined to hair, says how much of each part a pixel takes. Its ends are drawn
 *       together, so that a hard edge is one or two pixels wide and only hair stays in between.
 * </ol>
 *
 * Without a clear matte the whole map is one part.
 */
public final class DepthEdges {
    /** A map with more than this fraction of the picture's pixels on a side is fine already. */
    private static final int COARSE = 4;
    /** By how much one enlarging step grows: a little under four, so that the windows of two steps overlap. */
    private static final double LARGEST_STEP = 3.8;
    /** Pixels of the working size that one cell of the mode grid covers, at least. By eye on the demo photos. */
    private static final float CELL = 7;
    /** Colour distance that stops depth at full snap; by eye on hair and edges of the demo photos. */
    private static final float SHARP_CONTRAST = 0.085f;
    /** The same at no snap: hardly any edge stops it. */
    private static final float LOOSE_CONTRAST = 0.5f;
    /** How far hair stands off the body, as a share of the longer side; by eye on the dog and on portraits. */
    private static final float HAIR_REACH = 0.02f;
    /** Matte below which a pixel is all background for its depth, and above which ({@link #HAIR_HIGH}) all subject. */
    private static final float HAIR_LOW = 0.2f;
    /** See {@link #HAIR_LOW}; both by eye on hair at 100 %. */
    private static final float HAIR_HIGH = 0.8f;

    /** Longer side at which means are compared, and the radius over which they are taken: {@code ./yubble bench pairs}. */
    private static final int MEANS_SIDE = 240;
    /** See {@link #MEANS_SIDE}. */
    private static final int MEANS_RADIUS = 4;

    /** Pixels of a picture that is joined along its matte at once; for a larger one that would take too much memory. */
    private static final long AT_ONCE = 30_000_000;
    /** Pixels of strips of a larger one. */
    private static final int STRIP = 8_000_000;

    /** How much work edges are. */
    public enum Detail {
        /** What can be had. */
        FINE(480, 2, 1024),
        /** For maps whose edges lie on the picture's already, but for a pixel or two. */
        STEADY(320, 1, 1024),
        /** For films that are played: rendering takes half the time with it ({@code bench clip}), edges are less exact. */
        QUICK(320, 1, 512);

        /** Longer side at which edges are followed first. */
        private final int workingSide;
        /** How often each part is filtered. */
        private final int passes;
        /** Longer side at which the matte is fitted to the colours. */
        private final int fittingSide;

        Detail(int workingSide, int passes, int fittingSide) {
            this.workingSide = workingSide;
            this.passes = passes;
            this.fittingSide = fittingSide;
        }
    }

    private DepthEdges() {}

    /**
     * Nearness at the picture's size, in [0,1].
     *
     * @param snap how strongly edges follow the picture, in [0,1]: 0 leaves the map as soft as it is, 1 is all there is
     */
    public static Plane follow(DepthEstimate estimate, Picture picture, double snap) {
        return follow(estimate, picture, snap, Detail.FINE);
    }

    /** The same with more or less work. */
    public static Plane follow(DepthEstimate estimate, Picture picture, double snap, Detail detail) {
        Plane map = estimate.nearness();
        if (!map.size().hasShapeOf(picture.size())) {
            throw new DepthShapeException(map.size(), picture.size());
        }
        if (snap <= 0) {
            return unsnapped(map, picture.size());
        }
        Working working = new Working(picture, map, snap, detail);
        Plane matte = estimate.clearMatte();
        Plane snapped = working.withMeans(matte == null ? working.whole() : working.alongMatte(matte));
        float share = (float) Math.min(1, 4 * snap);
        return share >= 1 ? snapped : mixed(unsnapped(map, picture.size()), snapped, share);
    }

    // A fine map was measured or made: the sample under each pixel, because an average of two depths is a depth
    // at which nothing stands. A coarse one would show its cells.
    private static Plane unsnapped(Plane map, Size size) {
        boolean fine = map.size().longSide() * COARSE >= size.longSide();
        return fine ? Resample.pick(map, size) : Resample.enlarge(map, size);
    }

    private static Plane mixed(Plane from, Plane to, float share) {
        Plane out = new Plane(from.size());
        for (int i = 0; i < out.samples().length; i++) {
            out.samples()[i] = from.samples()[i] + share * (to.samples()[i] - from.samples()[i]);
        }
        return out;
    }

    private static final class Working {
        final Picture picture;
        final Detail detail;
        final Picture small;
        /** The sizes on the way from small to full. */
        final List<Size> steps;

        final Plane map;
        final ModeGrid.Guide guide;
        final float contrast;
        final int cellOfMap;

        Working(Picture picture, Plane map, double snap, Detail detail) {
            this.picture = picture;
            this.detail = detail;
            Size size = picture.size().fitting(detail.workingSide);
            this.small = Resample.toSize(picture, size);
            this.steps = steps(picture.size(), size);
            this.map = Resample.toSize(map, size);
            this.guide = ColourAxes.guide(small);
            this.contrast = (float) (LOOSE_CONTRAST + (SHARP_CONTRAST - LOOSE_CONTRAST) * Math.sqrt(snap));
            this.cellOfMap =
                    Math.max(1, Math.round((float) size.longSide() / map.size().longSide()));
        }

        /**
         * Edges may move what is near to one side or the other, but on the whole a place stays as near as the map has it:
         * what a mode takes from the lesser of two depths, again and again, would turn the order of thin things round.
         */
        Plane withMeans(Plane snapped) {
            Size size = map.size().fitting(MEANS_SIDE);
            Plane off = Resample.toSize(map, size);
            Plane now = Resample.toSize(snapped, size);
            for (int i = 0; i < off.samples().length; i++) {
                off.samples()[i] -= now.samples()[i];
            }
            Plane mean = BoxMean.of(BoxMean.of(off, MEANS_RADIUS), MEANS_RADIUS);
            Enlarging enlarging = new Enlarging(size, snapped.size());
            Bands.ofRows(snapped.height(), (from, until) -> {
                float[] line = new float[snapped.width()];
                for (int y = from; y < until; y++) {
                    enlarging.fill(mean, enlarging.row(y), line, 0);
                    for (int x = 0, i = y * line.length; x < line.length; x++, i++) {
                        snapped.samples()[i] = Math.max(0, Math.min(1, snapped.samples()[i] + line[x]));
                    }
                }
            });
            return snapped;
        }

        Plane whole() {
            return last(filtered(map))[0].enlarged(picture);
        }

        Plane filtered(Plane part) {
            float cell = Math.max(CELL, 1.2f * cellOfMap);
            Plane once = ModeGrid.filter(part, guide, cell, contrast);
            return detail.passes == 1 ? once : ModeGrid.filter(once, guide, cell * 0.7f, contrast);
        }

        /** In equal steps, none larger than allowed: 6000 pixels take two, not two and a tiny third. */
        private static List<Size> steps(Size full, Size small) {
            double ratio = (double) full.width() / small.width();
            int count = Math.max(1, (int) Math.ceil(Math.log(ratio) / Math.log(LARGEST_STEP)));
            List<Size> out = new ArrayList<>();
            for (int step = 1; step < count; step++) {
                out.add(full.fitting((int) Math.round(small.longSide() * Math.pow(ratio, (double) step / count))));
            }
            return out;
        }

        /** For each part the step to the full size, with all before it done. */
        EdgeStep[] last(Plane... parts) {
            Plane[] at = parts.clone();
            float[][] colours = EdgeStep.roots(small);
            for (Size size : steps) {
                Picture next = Resample.toSize(picture, size);
                for (int i = 0; i < at.length; i++) {
                    at[i] = new EdgeStep(at[i], colours).enlarged(next);
                }
                colours = EdgeStep.roots(next);
            }
            EdgeStep[] out = new EdgeStep[at.length];
            for (int i = 0; i < at.length; i++) {
                out[i] = new EdgeStep(at[i], colours);
            }
            return out;
        }

        Plane alongMatte(Plane matte) {
            Plane soft = Resample.toSize(matte, small.size());
            Plane inside = known(soft, 0.5f, 1);
            Plane mean = BoxMean.of(inside, cellOfMap);
            Plane behind = filtered(spread(known(mean, 0, 0.02f)));
            Plane subject = filtered(subjectPart(inside, mean));
            Plane decided = decidedAwayFromEdges(soft, inside);
            EdgeStep[] both = last(behind, subject);
            if (picture.size().pixels() <= AT_ONCE) {
                return joined(Region.all(picture.size()), decided, both[0], both[1]);
            }
            Plane out = new Plane(picture.size());
            int height = Math.max(1, STRIP / picture.width());
            for (int y = 0; y < picture.height(); y += height) {
                Region rows = new Region(0, y, picture.width(), Math.min(height, picture.height() - y));
                Plane part = joined(rows, decided, both[0], both[1]);
                System.arraycopy(part.samples(), 0, out.samples(), y * out.width(), part.samples().length);
            }
            return out;
        }

        private Plane joined(Region part, Plane matte, EdgeStep behind, EdgeStep subject) {
            Plane fine = MatteRefiner.refine(matte, picture, Region.all(picture.size()), part, detail.fittingSide);
            return joined(
                    behind.enlarged(picture, part, fine, 0, HAIR_HIGH),
                    subject.enlarged(picture, part, fine, HAIR_LOW, 1),
                    fine);
        }

        // A matte may be undecided over a whole coat. Only around its edge, as far as hair reaches, is half a
        // share of a pixel what it says; elsewhere it would be a half-way depth.
        private Plane decidedAwayFromEdges(Plane soft, Plane inside) {
            Plane around = BoxMean.of(
                    inside,
                    Math.max(cellOfMap, Math.round(HAIR_REACH * soft.size().longSide())));
            Plane out = new Plane(soft.size());
            for (int i = 0; i < out.samples().length; i++) {
                float share = around.samples()[i];
                out.samples()[i] = share > 0 && share < 1 ? soft.samples()[i] : inside.samples()[i];
            }
            return out;
        }

        // The map is coarse: spreading it at a quarter of the pixels looks the same and takes a fifth of the time.
        private Plane spread(Plane known) {
            Size size = map.size().fitting(detail.workingSide / 2);
            return Resample.toSize(Spread.fill(Resample.toSize(map, size), Resample.toSize(known, size)), map.size());
        }

        /** Each separate thing is spread from its own inside. */
        private Plane subjectPart(Plane inside, Plane mean) {
            Instances things = Instances.of(inside);
            Plane sure = known(mean, 0.98f, 1);
            if (things.count() < 2) {
                return spread(coreOf(sure, inside, things, 0));
            }
            Plane out = new Plane(map.size());
            Plane nearest = nearestThing(things);
            for (int label = 1; label <= things.count(); label++) {
                Plane own = spread(coreOf(sure, inside, things, label));
                for (int i = 0; i < out.samples().length; i++) {
                    if (Math.round(nearest.samples()[i]) == label) {
                        out.samples()[i] = own.samples()[i];
                    }
                }
            }
            return out;
        }

        // A thing too thin to have an inside is read along its middle.
        private Plane coreOf(Plane sure, Plane inside, Instances things, int label) {
            Plane core = new Plane(sure.size());
            float sum = 0;
            for (int i = 0; i < core.samples().length; i++) {
                if (label == 0 || things.labels()[i] == label) {
                    core.samples()[i] = sure.samples()[i];
                    sum += sure.samples()[i];
                }
            }
            for (int i = 0; sum < 20 && i < core.samples().length; i++) {
                if (label == 0 || things.labels()[i] == label) {
                    core.samples()[i] = inside.samples()[i] > 0.9f ? 1 : 0;
                }
            }
            return core;
        }

        private static Plane nearestThing(Instances things) {
            Plane labels = new Plane(things.width(), things.height());
            int[] queue = new int[labels.samples().length];
            int end = 0;
            for (int i = 0; i < queue.length; i++) {
                if (things.labels()[i] > 0) {
                    labels.samples()[i] = things.labels()[i];
                    queue[end++] = i;
                }
            }
            int width = things.width();
            for (int begin = 0; begin < end; begin++) {
                int at = queue[begin];
                int x = at % width;
                int[] around = {at - width, at + width, x > 0 ? at - 1 : -1, x < width - 1 ? at + 1 : -1};
                for (int to : around) {
                    if (to >= 0 && to < queue.length && labels.samples()[to] == 0) {
                        labels.samples()[to] = labels.samples()[at];
                        queue[end++] = to;
                    }
                }
            }
            return labels;
        }

        private static Plane known(Plane mean, float low, float high) {
            Plane out = new Plane(mean.size());
            for (int i = 0; i < out.samples().length; i++) {
                float m = mean.samples()[i];
                out.samples()[i] = m >= low && m <= high ? 1 : 0;
            }
            return out;
        }

        private static Plane joined(Plane behind, Plane subject, Plane matte) {
            float[] far = behind.samples();
            float[] near = subject.samples();
            float[] alpha = matte.samples();
            for (int i = 0; i < far.length; i++) {
                float t = Math.max(0, Math.min(1, (alpha[i] - HAIR_LOW) / (HAIR_HIGH - HAIR_LOW)));
                far[i] += t * t * (3 - 2 * t) * (near[i] - far[i]);
            }
            return behind;
        }
    }
}
