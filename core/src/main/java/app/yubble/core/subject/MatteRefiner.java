package app.yubble.core.subject;

import app.yubble.core.raster.Bands;
import app.yubble.core.raster.BoxMean;
import app.yubble.core.raster.Enlarging;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Region;
import app.yubble.core.raster.Resample;
import app.yubble.core.raster.Size;
import org.jspecify.annotations.Nullable;

/**
 * Brings a matte to the picture's size along the picture's edges, down to hair.
 *
 * <p>He, Sun and Tang, "Guided Image Filtering" (ECCV 2010), with colour as the guide (their section 3.3; the matting
 * Laplacian of Levin et al., "A Closed-Form Solution to Natural Image Matting", has the same local colour-line model):
 * in each window alpha is a linear function of red, green and blue. Departures: the model is fitted at a reduced size
 * and spread over the full picture (He and Sun, "Fast Guided Filter", 2015); it is used only in the band where the matte
 * is undecided or turns over, elsewhere the matte's own zeros and ones stand; and the result is stretched by a
 * twentieth at both ends, because the filter leaves a faint veil.
 *
 * <p>The filter keeps the mean of its window, so a hair thinner than the matte can see comes out at the share that the
 * matte gave its surroundings. Where the colours of the subject and of the ground nearby differ, alpha is therefore read
 * from where the pixel lies between the two (the compositing equation solved for alpha; see Wang and Cohen, "Image and Video
 * Matting: A Survey", 2007), as far as it lies on the line between them at all.
 *
 * <p>The guide is the square root of linear light, so that dark and light edges count alike.
 */
public final class MatteRefiner {
    /** Longer side at which the matte is fitted to the colours: as many as the finest matte of the network has. */
    private static final int FITTING_SIDE = 1024;
    /** Window over the longer side: as wide as a lock of hair. */
    private static final double RADIUS_SHARE = 1.0 / 160;
    /** Windows around a part that it is seen from. */
    private static final int REACH = 12;
    /** Variance of colour below which the fit smooths (He, Sun and Tang 2013). */
    private static final float EPSILON = 2e-4f;
    /** Within this of 0 or 1 the matte is left alone. */
    private static final float DECIDED = 0.03f;
    /** Faint matte over large areas, which the fit makes of colours that both sides have, is taken off. */
    private static final float VEIL = 0.06f;
    /** Squared colour distance of the two sides below which nothing can be read from colour. */
    private static final float LEAST_CONTRAST = 0.01f;
    /** Matte from which a pixel was mixed at all. */
    private static final float SIGN = 0.04f;

    private MatteRefiner() {}

    /** The matte at the size of the picture, in [0,1]. */
    public static Plane refine(Plane matte, Picture picture) {
        Region all = Region.all(picture.size());
        return refine(matte, picture, all, all);
    }

    /**
     * A part of a matte at the size of the picture; the same as the whole there.
     *
     * @param box what the matte covers of the picture
     * @param part what is wanted, within the box; only as much is worked on
     */
    public static Plane refine(Plane matte, Picture picture, Region box, Region part) {
        return refine(matte, picture, box, part, FITTING_SIDE);
    }

    /**
     * The same with the model fitted at another size.
     *
     * @param fittingSide longer side of the box there
     */
    public static Plane refine(Plane matte, Picture picture, Region box, Region part, int fittingSide) {
        Size fitting = box.size().fitting(fittingSide);
        int radius = Math.max(2, (int) Math.round(fitting.longSide() * RADIUS_SHARE));
        Plane soft = Resample.toSize(matte, fitting);
        double across = (double) box.width() / fitting.width();
        double down = (double) box.height() / fitting.height();
        Region wanted = part.from(box).scaled(1 / across, 1 / down, fitting);
        Region undecided = undecided(soft, wanted.grown(2 * radius, fitting));
        Region worked =
                undecided == null ? null : undecided.grown(2 * radius, fitting).meet(wanted.grown(1, fitting));
        Plane out = enlarged(soft, part, box);
        if (worked != null) {
            // As far as the colours of the two sides are looked for.
            Region seen = worked.grown(REACH * radius, fitting);
            Region whole = seen.scaled(across, down, box.size());
            Picture own = Resample.crop(
                    picture, new Region(whole.x() + box.x(), whole.y() + box.y(), whole.width(), whole.height()));
            Plane fine = fitted(Resample.crop(soft, seen), own, radius);
            Region inner = worked.scaled(across, down, box.size());
            put(fine, whole, inner, out, part, box);
        }
        return out;
    }

    /** Around all of {@code part} where the matte is neither 0 nor 1, or turns over; null when it is the same all over. */
    private static @Nullable Region undecided(Plane soft, Region part) {
        Region around = null;
        boolean first = soft.at(part.x(), part.y()) > 0.5f;
        for (int y = part.y(); y < part.y() + part.height(); y++) {
            int left = -1;
            int right = 0;
            for (int x = part.x(); x < part.x() + part.width(); x++) {
                float m = soft.at(x, y);
                if (m > DECIDED && m < 1 - DECIDED || m > 0.5f != first) {
                    left = left < 0 ? x : left;
                    right = x;
                }
            }
            if (left >= 0) {
                around = Region.around(around, new Region(left, y, right - left + 1, 1));
            }
        }
        return around;
    }

    /** A part of a small matte at the picture's size, between its pixels' centres. */
    private static Plane enlarged(Plane soft, Region part, Region box) {
        Plane out = new Plane(part.size());
        Region within = new Region(part.x() - box.x(), part.y() - box.y(), part.width(), part.height());
        Enlarging enlarging = new Enlarging(soft.size(), box.size(), within);
        Bands.ofRows(part.height(), (from, to) -> {
            for (int y = from; y < to; y++) {
                enlarging.fill(soft, enlarging.row(y), out.samples(), y * part.width());
            }
        });
        return out;
    }

    /** Puts what of {@code fine} lies in {@code inner} into {@code out}; both regions are within the box. */
    private static void put(Plane fine, Region whole, Region inner, Plane out, Region part, Region box) {
        Region own = new Region(inner.x() + box.x(), inner.y() + box.y(), inner.width(), inner.height());
        Region both = own.meet(part);
        if (both == null) {
            return;
        }
        for (int y = both.y(); y < both.y() + both.height(); y++) {
            System.arraycopy(
                    fine.samples(),
                    (y - box.y() - whole.y()) * fine.width() + both.x() - box.x() - whole.x(),
                    out.samples(),
                    (y - part.y()) * part.width() + both.x() - part.x(),
                    both.width());
        }
    }

    /** @param soft the matte at the size at which the model is fitted */
    private static Plane fitted(Plane soft, Picture picture, int radius) {
        Plane[] guide = new Plane[3];
        for (int c = 0; c < 3; c++) {
            guide[c] = Resample.toSize(picture.planes().get(c), soft.size()).rooted();
        }
        Plane turning = turning(soft, radius);
        Plane[] model = fit(guide, soft, BoxMean.of(turning, radius), radius);
        return apply(model, turning, soft, SideColours.of(guide, soft, radius), picture);
    }

    /** 1 where the matte turns over within a window, 0 where it is decided all around. */
    private static Plane turning(Plane matte, int radius) {
        Plane mean = BoxMean.of(matte, radius);
        Plane out = new Plane(matte.size());
        for (int i = 0; i < out.samples().length; i++) {
            float m = mean.samples()[i];
            out.samples()[i] = m > DECIDED && m < 1 - DECIDED ? 1 : 0;
        }
        return BoxMean.of(out, 1);
    }

    private static Plane product(Plane a, Plane b) {
        Plane out = new Plane(a.size());
        for (int i = 0; i < out.samples().length; i++) {
            out.samples()[i] = a.samples()[i] * b.samples()[i];
        }
        return out;
    }

    /** Slopes for red, green and blue, and the offset; zero where nothing within reach is wanted. */
    private static Plane[] fit(Plane[] guide, Plane input, Plane wanted, int radius) {
        Plane[] mean = new Plane[3];
        Plane[] withInput = new Plane[3];
        Plane[] squares = new Plane[6];
        for (int c = 0, pair = 0; c < 3; c++) {
            mean[c] = BoxMean.of(guide[c], radius);
            withInput[c] = BoxMean.of(product(guide[c], input), radius);
            for (int e = c; e < 3; e++) {
                squares[pair++] = BoxMean.of(product(guide[c], guide[e]), radius);
            }
        }
        Plane inputMean = BoxMean.of(input, radius);
        Plane[] model = {
            new Plane(input.size()), new Plane(input.size()), new Plane(input.size()), new Plane(input.size())
        };
        int width = input.width();
        Bands.ofRows(input.height(), (from, to) -> {
            for (int i = from * width; i < to * width; i++) {
                if (wanted.samples()[i] > 0) {
                    solve(i, mean, withInput, squares, inputMean, model);
                }
            }
        });
        for (int k = 0; k < 4; k++) {
            model[k] = BoxMean.of(model[k], radius);
        }
        return model;
    }

    // The 3x3 system (covariance + epsilon) slopes = covariance with the input, by Cramer's rule.
    private static void solve(int i, Plane[] mean, Plane[] withInput, Plane[] squares, Plane inputMean, Plane[] model) {
        double r = mean[0].samples()[i];
        double g = mean[1].samples()[i];
        double b = mean[2].samples()[i];
        double p = inputMean.samples()[i];
        double rr = squares[0].samples()[i] - r * r + EPSILON;
        double rg = squares[1].samples()[i] - r * g;
        double rb = squares[2].samples()[i] - r * b;
        double gg = squares[3].samples()[i] - g * g + EPSILON;
        double gb = squares[4].samples()[i] - g * b;
        double bb = squares[5].samples()[i] - b * b + EPSILON;
        double pr = withInput[0].samples()[i] - r * p;
        double pg = withInput[1].samples()[i] - g * p;
        double pb = withInput[2].samples()[i] - b * p;
        double first = gg * bb - gb * gb;
        double second = gb * rb - rg * bb;
        double third = rg * gb - gg * rb;
        double share = 1 / (rr * first + rg * second + rb * third);
        double sr = share * (first * pr + second * pg + third * pb);
        double sg = share * (second * pr + (rr * bb - rb * rb) * pg + (rg * rb - rr * gb) * pb);
        double sb = share * (third * pr + (rg * rb - rr * gb) * pg + (rr * gg - rg * rg) * pb);
        model[0].samples()[i] = (float) sr;
        model[1].samples()[i] = (float) sg;
        model[2].samples()[i] = (float) sb;
        model[3].samples()[i] = (float) (p - sr * r - sg * g - sb * b);
    }

    private static Plane apply(Plane[] model, Plane turning, Plane soft, SideColours sides, Picture picture) {
        Plane out = new Plane(picture.size());
        int width = picture.width();
        Enlarging enlarging = new Enlarging(soft.size(), picture.size());
        Enlarging coarse = new Enlarging(sides.size(), picture.size());
        Bands.ofRows(picture.height(), (from, to) -> {
            float[] weights = new float[width];
            float[] own = new float[width];
            for (int y = from; y < to; y++) {
                Enlarging.Row row = enlarging.row(y);
                Enlarging.Row coarseRow = coarse.row(y);
                enlarging.fill(turning, row, weights, 0);
                enlarging.fill(soft, row, own, 0);
                for (int x = 0, i = y * width; x < width; x++, i++) {
                    float alpha = own[x];
                    if (weights[x] > 0) {
                        float r = rooted(picture.red(), i);
                        float g = rooted(picture.green(), i);
                        float b = rooted(picture.blue(), i);
                        float line = enlarging.at(model[3], row, x)
                                + enlarging.at(model[0], row, x) * r
                                + enlarging.at(model[1], row, x) * g
                                + enlarging.at(model[2], row, x) * b;
                        float fine = Math.max(0, Math.min(1, (line - VEIL) / (1 - 2 * VEIL)));
                        if (fine > 0 && fine < 1) {
                            fine = between(sides, coarse, coarseRow, x, r, g, b, fine);
                        }
                        alpha += Math.min(1, weights[x]) * (fine - alpha);
                    }
                    out.samples()[i] = alpha;
                }
            }
        });
        return out;
    }

    /** Alpha from the colours of the two sides, as far as they tell; else {@code filtered}. */
    private static float between(
            SideColours sides,
            Enlarging columns,
            Enlarging.Row rows,
            int x,
            float r,
            float g,
            float b,
            float filtered) {
        float br = columns.at(sides.ground(0), rows, x);
        float bg = columns.at(sides.ground(1), rows, x);
        float bb = columns.at(sides.ground(2), rows, x);
        float dr = columns.at(sides.subject(0), rows, x) - br;
        float dg = columns.at(sides.subject(1), rows, x) - bg;
        float db = columns.at(sides.subject(2), rows, x) - bb;
        float contrast = dr * dr + dg * dg + db * db;
        if (contrast < LEAST_CONTRAST) {
            return filtered;
        }
        float share = ((r - br) * dr + (g - bg) * dg + (b - bb) * db) / contrast;
        float er = r - br - share * dr;
        float eg = g - bg - share * dg;
        float eb = b - bb - share * db;
        float off = (er * er + eg * eg + eb * eb) / contrast;
        float beyond = Math.max(0, Math.max(-share, share - 1));
        float trust = contrast / (contrast + 4 * LEAST_CONTRAST) / (1 + 30 * (off + beyond * beyond));
        // Without any sign of the subject in the filter's answer a pixel of its colour is ground of that colour.
        float sign = Math.max(0, Math.min(1, (Math.min(filtered, 1 - filtered) - SIGN) / SIGN));
        return filtered + trust * sign * (Math.max(0, Math.min(1, share)) - filtered);
    }

    private static float rooted(Plane plane, int i) {
        return (float) Math.sqrt(Math.max(0, plane.samples()[i]));
    }
}
