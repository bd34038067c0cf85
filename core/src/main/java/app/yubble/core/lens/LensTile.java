package app.yubble.core.lens;

import app.yubble.core.raster.Bands;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Region;
import java.util.Arrays;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/** One tile of {@link LensRender}: its pixels and a margin around them, the layers cut from them, and the result. */
final class LensTile {
    /** More than any radius needs. */
    private static final int MOST_LEVELS = 16;
    /** Where less than this of the layers behind shows, the pixel's own colour takes over. */
    private static final float LEAST_COVERAGE = 1e-3f;

    private final DiscShape shape;
    private final LensRender.Plan plan;
    private final KernelField.Frame frame;
    private final Region core;
    private final TilePixels pixels;
    private final Window seen;
    private final boolean hasFront;
    private final boolean hasBehind;
    private final Shelf shelf;
    private final Runnable mayStop;
    private final DiscCache discs;
    private @Nullable Lamps lamps;
    /** Of what stands in front over what is composed behind it. */
    private @Nullable Cover cover;
    /** By level; front and back use them in turn. */
    private final LayerSheet[] sheets = new LayerSheet[MOST_LEVELS];

    /**
     * @param shelf where the tile's planes are lent from
     * @param mayStop called between layers; throws to stop
     */
    LensTile(LensRender.Job job, Region core, Region box, Shelf shelf, Runnable mayStop) {
        this.shelf = shelf;
        this.shape = job.shape();
        this.plan = job.plan();
        this.core = core;
        this.mayStop = mayStop;
        frame = new KernelField.Frame(
                box.x(), box.y(), job.source().width(), job.source().height());
        hasFront = job.reach().hasFront(box);
        hasBehind = job.reach().hasBehind(box);
        discs = new DiscCache(shape, frame);
        Region within = Objects.requireNonNull(box.meet(Region.all(job.source().size())));
        pixels = new TilePixels(job.source(), job.field().radii(within), job.lift(), box, shelf);
        seen = Window.of(core, pixels);
    }

    void renderInto(Picture out, Region region) {
        if (!hasFront && !hasBehind) {
            write(pixels.red, pixels.green, pixels.blue, out, region);
            return;
        }
        Pieces[] pieces = EdgeSplit.splitInPlace(pixels, plan.spread());
        lamps = Lamps.of(pixels, pieces, plan.steps(), RadiusSteps.MOST_AT_FULL_SIZE, shape.rings());
        Sheet front = null;
        if (hasFront) {
            front = layers(pieces, HiddenFront.of(pixels), true);
            cover = front == null ? null : Cover.of(front, seen);
            HiddenFill.behindTheFront(pixels);
        }
        Sheet behind = hasBehind ? layers(pieces, nothing(pieces.length), false) : null;
        if (behind != null) {
            underTheBand(behind);
        }
        layPieces(pieces);
        if (front != null) {
            layFront(front);
        }
        write(pixels.red, pixels.green, pixels.blue, out, region);
    }

    private void write(float[][] red, float[][] green, float[][] blue, Picture out, Region region) {
        int x = seen.x0();
        for (int y = seen.y0(); y < seen.y1(); y++) {
            int to = (pixels.originY + y - region.y()) * out.width() + core.x() - region.x();
            System.arraycopy(red[y], x, out.red().samples(), to, core.width());
            System.arraycopy(green[y], x, out.green().samples(), to, core.width());
            System.arraycopy(blue[y], x, out.blue().samples(), to, core.width());
        }
    }

    /** What lies behind the band, composed back to front, or in front of it, front to back; null when nothing does. */
    private @Nullable Sheet layers(Pieces[] pieces, Pieces[] hidden, boolean inFront) {
        LayerCut cut = new LayerCut(pixels, pieces, hidden, plan.steps(), inFront, shelf);
        Sheet picture = null;
        Lamps lit = lamps != null && lamps.any() ? lamps : null;
        Glow glow = lit == null ? null : new Glow(pixels.width, pixels.height, seen);
        for (int k = cut.count() - 1; k >= 1; k--) {
            if (cut.isEmpty(k)) {
                continue;
            }
            mayStop.run();
            float radius = plan.steps().radius(k);
            int level = plan.steps().level(k);
            int width = pixels.width >> level;
            int height = pixels.height >> level;
            if (sheets[level] == null) {
                sheets[level] = new LayerSheet(level, width, height, shelf);
            }
            if (picture == null) {
                picture = new Sheet(Sheet.COLOURS_AND_COVERAGE, width, height, shelf);
            }
            while (picture.width < width) {
                picture = doubled(picture);
            }
            LayerSheet layer = sheets[level];
            int step = k;
            cut.open(k, layer);
            Window wanted = seen.on(level, width, height);
            Lamps.Group own = lit == null ? null : lit.at(k, inFront);
            Glow.Laid laid = glow != null && glow.mayChangeBy(own, inFront)
                    ? layer.untoldOver(picture, wanted, !inFront, own != null, shelf)
                    : null;
            LayerSheet.Laying how = new LayerSheet.Laying(
                    picture,
                    wanted,
                    !inFront,
                    new KernelField(shape, radius, inFront, frame, level),
                    cut.gathered(),
                    k == 1 && !inFront ? pixels.radius : null,
                    cover,
                    laid);
            layer.fillAndLay(how, row -> {
                layer.empty(row);
                cut.addMembers(step, layer, row);
                cut.gather(layer, row);
            });
            if (glow != null && laid != null) {
                glow.lay(own, inFront, discs, laid);
                laid.giveBack(shelf);
            }
        }
        while (picture != null && picture.width < pixels.width) {
            picture = doubled(picture);
        }
        if (picture != null && glow != null) {
            glow.addTo(picture);
        }
        return picture;
    }

    private Sheet doubled(Sheet picture) {
        int width = 2 * picture.width;
        int level = Integer.numberOfTrailingZeros(pixels.width / width);
        return picture.doubled(seen.on(level, width, 2 * picture.height), shelf);
    }

    private static Pieces[] nothing(int bands) {
        Pieces[] none = new Pieces[bands];
        Arrays.setAll(none, band -> new Pieces());
        return none;
    }

    private void eachRow(Bands.Rows work) {
        Bands.ofRows(seen.y1() - seen.y0(), (from, to) -> work.run(seen.y0() + from, seen.y0() + to));
    }

    // The sharp band itself over what lies behind it: pixels less than 1 px out of focus are partly sharp.
    private void underTheBand(Sheet behind) {
        eachRow((from, to) -> {
            float[] sharp = new float[pixels.width];
            float[] share = new float[pixels.width];
            for (int y = from; y < to; y++) {
                shares(pixels.radius[y], behind.rows[Sheet.COVERAGE][y], sharp, share);
                mixRow(pixels.red[y], behind.rows[0][y], sharp, share);
                mixRow(pixels.green[y], behind.rows[1][y], sharp, share);
                mixRow(pixels.blue[y], behind.rows[2][y], sharp, share);
            }
        });
    }

    private static void shares(float[] radius, float[] covered, float[] sharp, float[] share) {
        for (int i = 0; i < radius.length; i++) {
            float own = Math.max(0f, 1f - radius[i] * Math.max(0f, radius[i]));
            float known = Math.min(1f, covered[i] * (1 / LEAST_COVERAGE));
            share[i] = (1f - own) * known / Math.max(LEAST_COVERAGE, covered[i]);
            sharp[i] = own + (1f - own) * (1f - known);
        }
    }

    private static void mixRow(float[] own, float[] below, float[] sharp, float[] share) {
        for (int i = 0; i < own.length; i++) {
            own[i] = sharp[i] * own[i] + share[i] * below[i];
        }
    }

    /** Pieces of pixels that lie in the band. */
    private void layPieces(Pieces[] all) {
        for (Pieces pieces : all) {
            for (int i = 0; i < pieces.count; i++) {
                if (Math.abs(pieces.radius[i]) < 1) {
                    int x = pieces.places[i] & 0xffff;
                    int y = pieces.places[i] >>> 16;
                    float rest = 1 - pieces.coverage[i];
                    pixels.red[y][x] = pieces.red[i] + rest * pixels.red[y][x];
                    pixels.green[y][x] = pieces.green[i] + rest * pixels.green[y][x];
                    pixels.blue[y][x] = pieces.blue[i] + rest * pixels.blue[y][x];
                }
            }
        }
    }

    private void layFront(Sheet front) {
        eachRow((from, to) -> {
            for (int y = from; y < to; y++) {
                float[] alpha = front.rows[Sheet.COVERAGE][y];
                Sheet.overRow(front.rows[0][y], alpha, pixels.red[y]);
                Sheet.overRow(front.rows[1][y], alpha, pixels.green[y]);
                Sheet.overRow(front.rows[2][y], alpha, pixels.blue[y]);
            }
        });
    }
}
