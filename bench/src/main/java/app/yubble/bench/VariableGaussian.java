package app.yubble.bench;

import app.yubble.core.raster.Bands;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;

/** The plain way that the lens is compared with: every pixel the Gaussian mean around it, sigma half its blur radius. */
final class VariableGaussian {
    private static final double SPAN = 3;

    private VariableGaussian() {}

    static Picture of(Picture source, Plane radius) {
        Picture out = Picture.blank(source.size());
        int width = source.width();
        int height = source.height();
        Bands.ofRows(height, (from, to) -> {
            for (int y = from; y < to; y++) {
                for (int x = 0; x < width; x++) {
                    double sigma = Math.abs(radius.at(x, y)) / 2;
                    if (sigma < 0.1) {
                        copy(source, out, y * width + x);
                    } else {
                        mean(source, out, x, y, sigma);
                    }
                }
            }
        });
        return out;
    }

    private static void copy(Picture from, Picture to, int i) {
        for (int c = 0; c < 3; c++) {
            to.planes().get(c).samples()[i] = from.planes().get(c).samples()[i];
        }
    }

    private static void mean(Picture source, Picture out, int cx, int cy, double sigma) {
        int reach = (int) Math.ceil(SPAN * sigma);
        int width = source.width();
        int height = source.height();
        double[] sum = new double[3];
        double weights = 0;
        for (int dy = -reach; dy <= reach; dy++) {
            int y = Math.max(0, Math.min(height - 1, cy + dy));
            for (int dx = -reach; dx <= reach; dx++) {
                int x = Math.max(0, Math.min(width - 1, cx + dx));
                double weight = Math.exp(-(dx * dx + dy * dy) / (2 * sigma * sigma));
                weights += weight;
                for (int c = 0; c < 3; c++) {
                    sum[c] += weight * source.planes().get(c).samples()[y * width + x];
                }
            }
        }
        for (int c = 0; c < 3; c++) {
            out.planes().get(c).samples()[cy * width + cx] = (float) (sum[c] / weights);
        }
    }
}
