package app.yubble.core.finish;

import app.yubble.core.raster.Bands;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Region;
import org.jspecify.annotations.Nullable;

/**
 * Puts a photo's own noise back where it was blurred: as much as the blur took away, no more. It is fixed by place, so that a picture that
 * is drawn again has the same.
 */
public final class Grain {
    /** Steps of brightness in which the level is looked up. */
    private static final int LEVELS = 256;
    /** Steps of a pixel of radius in which the share that the blur took is looked up. */
    private static final int RADIUS_STEPS = 16;
    /** Pixels of radius up to which the lens leaves a pixel as it is. Measured on noise, as the next. */
    private static final double UNTOUCHED = 0.5;
    /** Pixels of radius from which it blurs wholly. */
    private static final double BLURRED = 1;
    /** Pixels of radius up to which what the blur leaves is so wide that what is added has to be finer than the noise. */
    private static final float NEAR = 1.75f;
    /** Correlation of neighbours of what a blur of one pixel leaves of noise of single pixels. */
    private static final double LEFT_BESIDE = 0.57;
    /** The same of wider noise: by how much it grows with the noise's own. Both measured on noise. */
    private static final double LEFT_MORE = 0.3;
    /** Pixels of radius from which nothing of the noise is left. */
    private static final int ALL_TAKEN = 40;
    /** So that the two patterns, and those of the channels, do not go together. Odd numbers by chance. */
    private static final int[] SHIFTS = {0, 171, 347};
    /** The golden ratio's share of 2^64, which scatters numbers in a row. */
    private static final long SCATTER = 0x9E3779B97F4A7C15L;
    /** Any number. */
    private static final long SHARED_SEED = 0x51ab9d3;
    /** Any other. */
    private static final long OWN_SEED = 0x7c41e05;

    private final Noise noise;
    /** None for a photo without noise. */
    private final @Nullable Tiles far;
    /** For pixels that are hardly blurred. */
    private final @Nullable Tiles near;

    private final float[] taken = new float[ALL_TAKEN * RADIUS_STEPS + 1];
    private final float[][] levels = new float[3][LEVELS + 1];

    public Grain(Noise noise) {
        this.noise = noise;
        double left = left(BLURRED, noise.beside());
        far = noise.isNone() ? null : Tiles.of(noise.beside());
        near = noise.isNone()
                ? null
                : Tiles.of((noise.beside() - left * left * (LEFT_BESIDE + LEFT_MORE * noise.beside()))
                        / (1 - left * left));
        for (int i = 0; i < taken.length; i++) {
            taken[i] = (float) taken((double) i / RADIUS_STEPS, noise.beside());
        }
        for (int c = 0; c < 3; c++) {
            for (int i = 0; i <= LEVELS; i++) {
                levels[c][i] = noise.level(c, (float) i / LEVELS);
            }
        }
    }

    /** What the channels have in common and what each has of its own. */
    private record Tiles(GrainTile shared, GrainTile own) {
        static Tiles of(double beside) {
            return new Tiles(new GrainTile(beside, SHARED_SEED), new GrainTile(beside, OWN_SEED));
        }
    }

    public boolean isNone() {
        return noise.isNone();
    }

    public Noise noise() {
        return noise;
    }

    /** Memory held. */
    public long bytes() {
        return isNone() ? 0 : 4L * GrainTile.SIDE * GrainTile.SIDE * Float.BYTES;
    }

    /**
     * Standard deviation of noise that, added to what a blur has left, makes up for what it took: a disc averages as many independent
     * pixels as it covers. The lens passes smoothly from what it leaves untouched to what it blurs.
     */
    private static double taken(double radius, double beside) {
        double left = left(radius, beside);
        return Math.sqrt(1 - left * left);
    }

    private static double left(double radius, double beside) {
        double together = Noise.together(beside);
        double reached = Math.max(BLURRED, radius);
        double blurred = Math.sqrt(together / (together + Math.PI * reached * reached));
        double mixed = Math.max(0, Math.min(1, (radius - UNTOUCHED) / (BLURRED - UNTOUCHED)));
        return 1 - mixed * mixed * (3 - 2 * mixed) * (1 - blurred);
    }

    /**
     * A part of a picture with grain.
     *
     * @param part where {@code picture} lies in the whole picture
     * @param radii of the whole picture
     * @param share of the noise
     * @param pattern other numbers give other patterns
     */
    public Picture over(Picture picture, Region part, Plane radii, double share, int pattern) {
        Tiles fine = near;
        Tiles wide = far;
        if (fine == null || wide == null) {
            return picture;
        }
        long mixed = pattern * SCATTER;
        int shiftX = (int) (mixed >>> 20) & GrainTile.MASK;
        int shiftY = (int) (mixed >>> 40) & GrainTile.MASK;
        Picture out = Picture.blank(picture.size());
        Bands.ofRows(part.height(), (from, to) -> {
            Row line = new Row(part.width(), share);
            for (int row = from; row < to; row++) {
                int y = row + part.y();
                line.look(radii, part.x(), y);
                for (int c = 0; c < 3; c++) {
                    line.draw(wide, fine, c, part.x() + shiftX, y + shiftY);
                    line.add(
                            picture.planes().get(c).samples(),
                            out.planes().get(c).samples(),
                            row * part.width(),
                            levels[c]);
                }
            }
        });
        return out;
    }

    /**
     * One row after another. Loops over whole arrays from 0, in which each step is a simple one, become vector instructions: a quarter
     * of the time.
     */
    private final class Row {
        private final float alike;
        private final float apart;
        /** Mean square of the noise that is added, over that of all that is missing. */
        private final float squares;
        /** Share of the noise that the blur took from each pixel. */
        private final float[] missing;
        /** Pixels that are hardly blurred. */
        private final boolean[] close;

        private boolean anyClose;
        private final float[] drawn;
        private final float[] fineDrawn;
        private final float[] shared;
        private final float[] own;
        private final float[] samples;
        private final float[] roots;
        private final float[] most;

        Row(int width, double share) {
            alike = (float) (share * Math.sqrt(noise.alike()));
            apart = (float) (share * Math.sqrt(1 - noise.alike()));
            squares = (float) (share * share);
            missing = new float[width];
            close = new boolean[width];
            drawn = new float[width];
            fineDrawn = new float[width];
            shared = new float[width];
            own = new float[width];
            samples = new float[width];
            roots = new float[width];
            most = new float[width];
        }

        void look(Plane radii, int x, int y) {
            anyClose = false;
            int at = y * radii.width() + x;
            for (int i = 0; i < missing.length; i++) {
                float radius = Math.abs(radii.samples()[at + i]);
                missing[i] = taken[(int) Math.min(taken.length - 1, radius * RADIUS_STEPS)];
                close[i] = radius < NEAR;
                anyClose |= close[i] && missing[i] > 0;
            }
        }

        /** Noise of the variance of what is to be added. */
        void draw(Tiles wide, Tiles fine, int channel, int x, int y) {
            mix(wide, channel, x, y, drawn);
            if (anyClose) {
                mix(fine, channel, x, y, fineDrawn);
                for (int i = 0; i < drawn.length; i++) {
                    drawn[i] = close[i] ? fineDrawn[i] : drawn[i];
                }
            }
        }

        private void mix(Tiles tiles, int channel, int x, int y, float[] to) {
            tiles.shared.read(x, y, shared);
            tiles.own.read(x + SHIFTS[channel], y + SHIFTS[channel], own);
            for (int i = 0; i < to.length; i++) {
                to[i] = alike * shared[i] + apart * own[i];
            }
        }

        void add(float[] from, float[] to, int at, float[] level) {
            System.arraycopy(from, at, samples, 0, samples.length);
            for (int i = 0; i < roots.length; i++) {
                roots[i] = (float) Math.sqrt(Math.max(0f, samples[i]));
            }
            for (int i = 0; i < most.length; i++) {
                most[i] = level[(int) (Math.min(1f, roots[i]) * LEVELS)] * missing[i];
            }
            for (int i = 0; i < samples.length; i++) {
                float more = most[i] * drawn[i];
                // The square of a noisy root is brighter in the mean.
                float brighter = more * more - squares * most[i] * most[i];
                samples[i] = Math.max(Math.min(0f, samples[i]), samples[i] + 2f * roots[i] * more + brighter);
            }
            System.arraycopy(samples, 0, to, at, samples.length);
        }
    }
}
