package app.yubble.media.picture;

import app.yubble.core.raster.Bands;
import app.yubble.core.raster.Picture;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/**
 * Colour spaces that a picture can be delivered in. Colours that one of them cannot show become the nearest that it can, a
 * channel at a time, as with relative colorimetric intent.
 */
public enum ColourSpace {
    /** That of the source. */
    SOURCE("", new double[0], new double[0]),
    /** IEC 61966-2-1. */
    SRGB("sRGB", new double[] {0.64, 0.33, 0.30, 0.60, 0.15, 0.06}, Made.SRGB),
    /** SMPTE EG 432-1 with the white and curve of sRGB. */
    DISPLAY_P3("Display P3", new double[] {0.680, 0.320, 0.265, 0.690, 0.150, 0.060}, Made.SRGB),
    /** ITU-R BT.2020. */
    BT2020("BT.2020 wide gamut", new double[] {0.708, 0.292, 0.170, 0.797, 0.131, 0.046}, Made.BT709);

    /** What constants are made from. Curves are an exponent and the numbers a to d. */
    private static final class Made {
        static final double[] SRGB = {2.4, 1 / 1.055, 0.055 / 1.055, 1 / 12.92, 0.04045};
        static final double[] BT709 = {1 / 0.45, 1 / 1.099, 0.099 / 1.099, 1 / 4.5, 0.081};
        /** Daylight, as x and y. */
        static final double[] D65 = {0.3127, 0.3290};
        /** From XYZ to the cones' responses, by Bradford (Lam 1985), as ICC.1:2022, annex E, has it. */
        static final Matrix3 CONES =
                new Matrix3(new double[] {0.8951, 0.2664, -0.1614, -0.7502, 1.7135, 0.0367, 0.0389, -0.0685, 1.0296});
    }

    private final byte @Nullable [] profile;
    private final @Nullable Matrix3 toXyz;

    ColourSpace(String name, double[] primaries, double[] curve) {
        if (primaries.length == 0) {
            profile = null;
            toXyz = null;
            return;
        }
        Matrix3 adaptation = adaptation();
        toXyz = adaptation.times(toOwnXyz(primaries));
        profile = IccProfile.made(name, toXyz, adaptation, curve);
    }

    private static double[] xyz(double x, double y) {
        return new double[] {x / y, 1, (1 - x - y) / y};
    }

    private static Matrix3 toOwnXyz(double[] p) {
        double[][] columns = {xyz(p[0], p[1]), xyz(p[2], p[3]), xyz(p[4], p[5])};
        double[] values = new double[9];
        for (int i = 0; i < values.length; i++) {
            values[i] = columns[i % 3][i / 3];
        }
        Matrix3 unscaled = new Matrix3(values);
        return unscaled.times(Matrix3.diagonal(unscaled.inverse().times(xyz(Made.D65[0], Made.D65[1]))));
    }

    private static Matrix3 adaptation() {
        double[] from = Made.CONES.times(xyz(Made.D65[0], Made.D65[1]));
        double[] to = Made.CONES.times(IccProfile.D50);
        double[] factors = {to[0] / from[0], to[1] / from[1], to[2] / from[2]};
        return Made.CONES.inverse().times(Matrix3.diagonal(factors)).times(Made.CONES);
    }

    /** A picture in this space, with the origin that goes with it. What is in it already stays as it is. */
    public DecodedPicture converted(Picture picture, Origin origin) {
        Matrix3 own = toXyz;
        byte[] from = origin.profile();
        if (own == null || isOf(origin)) {
            return new DecodedPicture(picture, origin);
        }
        Origin there = of(origin);
        Matrix3 source = from == null
                ? SRGB.toXyz
                : IccProfile.of(from).flatMap(IccProfile::toXyz).orElse(null);
        // A profile without primaries, of grey, says nothing about colour.
        return new DecodedPicture(
                source == null ? picture : times(picture, own.inverse().times(source)), there);
    }

    private boolean isOf(Origin origin) {
        return toXyz == null || this == SRGB && origin.profile() == null;
    }

    /** The origin of a picture that has been converted. */
    Origin converted(Origin origin) {
        return isOf(origin) ? origin : of(origin);
    }

    /** The origin of a picture that is in this space. */
    Origin of(Origin origin) {
        byte[] ownProfile = Objects.requireNonNull(profile);
        return origin.withColours(ownProfile, ToneCurve.ofProfile(ownProfile).orElseThrow());
    }

    /** A picture of linear sRGB, which may leave its gamut, in this space. */
    DecodedPicture ofLinear(Picture picture, Matrix3 toLinearSrgb, Origin origin) {
        Matrix3 own = Objects.requireNonNull(toXyz);
        Matrix3 srgb = Objects.requireNonNull(SRGB.toXyz);
        return new DecodedPicture(times(picture, own.inverse().times(srgb).times(toLinearSrgb)), of(origin));
    }

    private static Picture times(Picture picture, Matrix3 matrix) {
        Picture out = Picture.blank(picture.size());
        float[] red = picture.red().samples();
        float[] green = picture.green().samples();
        float[] blue = picture.blue().samples();
        for (int c = 0; c < 3; c++) {
            float ofRed = (float) matrix.at(c, 0);
            float ofGreen = (float) matrix.at(c, 1);
            float ofBlue = (float) matrix.at(c, 2);
            float[] to = out.planes().get(c).samples();
            Bands.ofRows(picture.height(), (first, last) -> {
                for (int i = first * picture.width(); i < last * picture.width(); i++) {
                    to[i] = ofRed * red[i] + ofGreen * green[i] + ofBlue * blue[i];
                }
            });
        }
        return out;
    }
}
