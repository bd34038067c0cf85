package app.yubble.core.ladder;

import app.yubble.core.raster.Bands;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import java.util.List;

/**
 * Moves nearness so that it follows rungs: by how much is a smooth function of place, nearness, colour and kin which is right at the rungs
 * and else as small as it can be (regression with a Gaussian process; Rasmussen and Williams, "Gaussian Processes for Machine
 * Learning", 2006). So what belongs to a rung moves with it, what lies between two moves by something in between, and nothing
 * breaks where neither nearness nor colour does.
 */
public final class Ladder {
    /** So that two rungs on one place do not make it unsolvable. */
    private static final double SLACK = 1e-3;

    /** Of nearness: what is not seen. */
    private static final double NOTHING = 1e-6;

    private final Heights heights;
    private final double[] found;
    private final float[][] stands;
    private final double[] pulls;
    private final Metric metric;

    /** @param footings for each rung that of the moment at which it was clicked */
    public Ladder(List<Rung> rungs, List<Footing> footings) {
        int count = rungs.size();
        metric = Metric.of(footings);
        found = new double[count];
        stands = new float[count][Footing.PARTS];
        for (int i = 0; i < count; i++) {
            Footing footing = footings.get(i);
            int place = footing.under(rungs.get(i));
            footing.read(place, stands[i]);
            found[i] = footing.nearness().samples()[place];
        }
        heights = Heights.of(rungs, found);
        double[][] alike = new double[count][count];
        pulls = new double[count];
        for (int i = 0; i < count; i++) {
            for (int j = 0; j < count; j++) {
                alike[i][j] = metric.alike(stands[i], stands[j]) + (i == j ? SLACK : 0);
            }
            pulls[i] = heights.nearness()[i] - found[i];
        }
        solve(alike, pulls);
    }

    public Heights heights() {
        return heights;
    }

    /** Nearness of the map under each rung. */
    public double[] found() {
        return found.clone();
    }

    /** Whether the map has the order already. */
    public boolean isIdle() {
        for (double pull : pulls) {
            if (Math.abs(pull) > NOTHING) {
                return false;
            }
        }
        return true;
    }

    /** By how much every pixel of a moment moves, at its size. */
    private Plane shift(Footing footing) {
        Plane out = new Plane(footing.size());
        int width = out.width();
        Bands.ofRows(out.height(), (from, to) -> {
            float[] here = new float[Footing.PARTS];
            for (int i = from * width; i < to * width; i++) {
                footing.read(i, here);
                double sum = 0;
                for (int k = 0; k < pulls.length; k++) {
                    sum += pulls[k] * metric.alike(here, stands[k]);
                }
                out.samples()[i] = (float) sum;
            }
        });
        return out;
    }

    /** What nearness of the moment with this footing becomes, at any size; in [0,1]. */
    public Plane move(Plane nearness, Picture picture, Footing footing) {
        return isIdle() ? nearness : new Enlarged(shift(footing), footing).move(nearness, picture);
    }

    /** Solves for {@code right} in place, by elimination: the matrix is symmetric and positive. */
    private static void solve(double[][] left, double[] right) {
        int count = right.length;
        for (int c = 0; c < count; c++) {
            for (int r = c + 1; r < count; r++) {
                double factor = left[r][c] / left[c][c];
                for (int k = c; k < count; k++) {
                    left[r][k] -= factor * left[c][k];
                }
                right[r] -= factor * right[c];
            }
        }
        for (int r = count - 1; r >= 0; r--) {
            for (int k = r + 1; k < count; k++) {
                right[r] -= left[r][k] * right[k];
            }
            right[r] /= left[r][r];
        }
    }
}
