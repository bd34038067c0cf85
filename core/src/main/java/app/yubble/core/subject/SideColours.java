package app.yubble.core.subject;

import app.yubble.core.raster.BoxMean;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Resample;
import app.yubble.core.raster.Size;

/**
 * The colours of the subject and of the ground around each place, each read where the matte is sure of it, as square roots
 * of linear light. Where nothing sure is within reach the two are equal.
 */
record SideColours(Plane[] subjects, Plane[] grounds) {
    /** Matte from which a colour is one side's own. */
    private static final float SURE = 0.96f;
    /** Share of sure pixels in a window from which their mean counts. */
    private static final float ENOUGH = 0.002f;
    /** The sides are learned at half the size: colours of a side vary slowly. */
    private static final int SMALLER = 2;
    /** Windows over which they are spread where there are none. */
    private static final int REACH = 2;

    Size size() {
        return subjects[0].size();
    }

    Plane subject(int channel) {
        return subjects[channel];
    }

    Plane ground(int channel) {
        return grounds[channel];
    }

    /** @param radius of the filter at the guide's size */
    static SideColours of(Plane[] guide, Plane matte, int radius) {
        Size size = matte.size().fitting(Math.max(16, matte.size().longSide() / SMALLER));
        Plane alpha = Resample.toSize(matte, size);
        Plane in = new Plane(size);
        Plane out = new Plane(size);
        for (int i = 0; i < alpha.samples().length; i++) {
            in.samples()[i] = alpha.samples()[i] > SURE ? 1 : 0;
            out.samples()[i] = alpha.samples()[i] < 1 - SURE ? 1 : 0;
        }
        int reach = Math.max(2, radius * REACH / SMALLER);
        Plane[] subjects = new Plane[3];
        Plane[] grounds = new Plane[3];
        for (int c = 0; c < 3; c++) {
            Plane channel = Resample.toSize(guide[c], size);
            subjects[c] = mean(channel, in, reach);
            grounds[c] = mean(channel, out, reach);
            agree(subjects[c], grounds[c]);
        }
        return new SideColours(subjects, grounds);
    }

    private static Plane mean(Plane channel, Plane weight, int reach) {
        Plane weighted = new Plane(channel.size());
        for (int i = 0; i < weighted.samples().length; i++) {
            weighted.samples()[i] = channel.samples()[i] * weight.samples()[i];
        }
        Plane out = Plane.filled(channel.size(), Float.NaN);
        // What is near counts; long hair has its head a little farther away.
        for (int wider : new int[] {reach, 5 * reach}) {
            Plane sums = BoxMean.of(BoxMean.of(weighted, wider), wider);
            Plane weights = BoxMean.of(BoxMean.of(weight, wider), wider);
            for (int i = 0; i < out.samples().length; i++) {
                float share = weights.samples()[i];
                if (Float.isNaN(out.samples()[i]) && share > ENOUGH) {
                    out.samples()[i] = sums.samples()[i] / share;
                }
            }
        }
        return out;
    }

    private static void agree(Plane first, Plane second) {
        for (int i = 0; i < first.samples().length; i++) {
            if (Float.isNaN(first.samples()[i]) || Float.isNaN(second.samples()[i])) {
                first.samples()[i] = 0;
                second.samples()[i] = 0;
            }
        }
    }
}
