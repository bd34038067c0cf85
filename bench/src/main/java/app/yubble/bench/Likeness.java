package app.yubble.bench;

import app.yubble.core.raster.BoxMean;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;

/**
 * How like two pictures are, in values cut at white and raised to 1/2.2, about as a screen shows them.
 *
 * @param psnr over the whole picture, in dB; at most {@link #MOST}
 * @param band PSNR of the marked pixels only
 * @param ssim Wang et al., "Image quality assessment: from error visibility to structural similarity" (2004), on
 *     lightness, departing in that the window is two box means of 5 pixels instead of a Gaussian
 */
record Likeness(double psnr, double band, double ssim) {
    static final double MOST = 99;
    private static final double C1 = 0.01 * 0.01;
    private static final double C2 = 0.03 * 0.03;
    private static final int WINDOW = 2;

    static Likeness of(Picture ours, Picture truth, boolean[] marked) {
        double all = 0;
        double inBand = 0;
        long count = 0;
        for (int c = 0; c < 3; c++) {
            float[] a = ours.planes().get(c).samples();
            float[] b = truth.planes().get(c).samples();
            for (int i = 0; i < a.length; i++) {
                double d = shown(a[i]) - shown(b[i]);
                all += d * d;
                if (marked[i]) {
                    inBand += d * d;
                    count++;
                }
            }
        }
        return new Likeness(
                decibels(all / (3.0 * truth.size().pixels())),
                decibels(inBand / Math.max(1, count)),
                ssim(lightness(ours), lightness(truth)));
    }

    private static double decibels(double meanSquare) {
        return Math.min(MOST, -10 * Math.log10(meanSquare));
    }

    static double shown(float linear) {
        return Math.pow(Math.max(0, Math.min(1, linear)), 1 / 2.2);
    }

    private static Plane lightness(Picture picture) {
        Plane out = new Plane(picture.size());
        for (int i = 0; i < out.samples().length; i++) {
            out.samples()[i] = (float) (0.299 * shown(picture.red().samples()[i])
                    + 0.587 * shown(picture.green().samples()[i])
                    + 0.114 * shown(picture.blue().samples()[i]));
        }
        return out;
    }

    private static Plane mean(Plane plane) {
        return BoxMean.of(BoxMean.of(plane, WINDOW), WINDOW);
    }

    private static Plane product(Plane a, Plane b) {
        Plane out = new Plane(a.size());
        for (int i = 0; i < out.samples().length; i++) {
            out.samples()[i] = a.samples()[i] * b.samples()[i];
        }
        return out;
    }

    private static double ssim(Plane a, Plane b) {
        float[] meanA = mean(a).samples();
        float[] meanB = mean(b).samples();
        float[] squareA = mean(product(a, a)).samples();
        float[] squareB = mean(product(b, b)).samples();
        float[] both = mean(product(a, b)).samples();
        double sum = 0;
        for (int i = 0; i < both.length; i++) {
            double ma = meanA[i];
            double mb = meanB[i];
            double varA = Math.max(0, squareA[i] - ma * ma);
            double varB = Math.max(0, squareB[i] - mb * mb);
            double covariance = both[i] - ma * mb;
            sum += (2 * ma * mb + C1) * (2 * covariance + C2) / ((ma * ma + mb * mb + C1) * (varA + varB + C2));
        }
        return sum / both.length;
    }
}
