package app.yubble.media.picture;

import java.awt.image.BufferedImage;
import java.awt.image.ComponentSampleModel;
import java.awt.image.DataBuffer;
import java.awt.image.DataBufferByte;
import java.awt.image.DataBufferUShort;
import java.awt.image.Raster;

/** Reads rows of a decoded image as linear light, transparency laid over black. */
abstract class Samples {
    /** Up to so many bits a table of all codes is made. */
    private static final int TABLE_BITS = 16;

    private final int bands;
    private final int alphaBand;

    private Samples(BufferedImage image) {
        bands = image.getRaster().getNumBands();
        alphaBand = image.getColorModel().hasAlpha() && !image.isAlphaPremultiplied() ? bands - 1 : -1;
    }

    /** For whatever numbers the image has: integers of 8, 16 or 32 bits, or floating point. */
    static Samples of(BufferedImage image, ToneCurve curve) {
        int type = image.getSampleModel().getDataType();
        boolean floating = type == DataBuffer.TYPE_FLOAT || type == DataBuffer.TYPE_DOUBLE;
        int bits = image.getColorModel().getComponentSize(0);
        if (floating || bits > TABLE_BITS) {
            return new Wide(image, curve, floating);
        }
        return isPlain(image) ? new Plain(image, curve, bits) : new Tabled(image, curve, bits);
    }

    /** Whether pixels are bytes or shorts side by side, without transparency, as those of most photos and of what we store. */
    private static boolean isPlain(BufferedImage image) {
        DataBuffer data = image.getRaster().getDataBuffer();
        return (data instanceof DataBufferByte || data instanceof DataBufferUShort)
                && image.getSampleModel() instanceof ComponentSampleModel
                && !image.getColorModel().hasAlpha();
    }

    /** @param light red, green and blue of each pixel of row {@code y}; modified */
    abstract void read(Raster raster, int y, float[][] light);

    int bands() {
        return bands;
    }

    /** The band of a colour; grey has one for all. */
    int band(int colour) {
        return bands < 3 ? 0 : colour;
    }

    int alphaBand() {
        return alphaBand;
    }

    /** Channel by channel from the numbers as they lie there: a photo is decoded in two thirds of the time. */
    private static final class Plain extends Samples {
        private final float[][] decode;
        private final boolean wide;

        Plain(BufferedImage image, ToneCurve curve, int bits) {
            super(image);
            wide = image.getRaster().getDataBuffer() instanceof DataBufferUShort;
            decode = curve.tables((1 << bits) - 1);
        }

        @Override
        void read(Raster raster, int y, float[][] light) {
            ComponentSampleModel model = (ComponentSampleModel) raster.getSampleModel();
            DataBuffer data = raster.getDataBuffer();
            int column = raster.getMinX() - raster.getSampleModelTranslateX();
            int row = raster.getMinY() + y - raster.getSampleModelTranslateY();
            int step = model.getPixelStride();
            for (int c = 0; c < light.length; c++) {
                int bank = model.getBankIndices()[band(c)];
                int first = data.getOffsets()[bank] + model.getOffset(column, row, band(c));
                if (wide) {
                    decode(((DataBufferUShort) data).getData(bank), first, step, decode[c], light[c]);
                } else {
                    decode(((DataBufferByte) data).getData(bank), first, step, decode[c], light[c]);
                }
            }
        }

        private static void decode(byte[] data, int first, int step, float[] decode, float[] light) {
            for (int x = 0, at = first; x < light.length; x++, at += step) {
                light[x] = decode[data[at] & 0xff];
            }
        }

        private static void decode(short[] data, int first, int step, float[] decode, float[] light) {
            for (int x = 0, at = first; x < light.length; x++, at += step) {
                light[x] = decode[data[at] & 0xffff];
            }
        }
    }

    private static final class Tabled extends Samples {
        private final float[][] decode;
        private final float perAlpha;

        Tabled(BufferedImage image, ToneCurve curve, int bits) {
            super(image);
            int most = (1 << bits) - 1;
            perAlpha = 1f / most;
            decode = new float[][] {curve.decoding(0, most), curve.decoding(1, most), curve.decoding(2, most)};
        }

        @Override
        void read(Raster raster, int y, float[][] light) {
            int width = light[0].length;
            int[] row = raster.getPixels(raster.getMinX(), raster.getMinY() + y, width, 1, new int[width * bands()]);
            for (int x = 0; x < width; x++) {
                float cover = alphaBand() < 0 ? 1 : row[x * bands() + alphaBand()] * perAlpha;
                for (int c = 0; c < light.length; c++) {
                    light[c][x] = decode[c][row[x * bands() + band(c)]] * cover;
                }
            }
        }
    }

    /** Numbers of 32 bits or more; floating point has white at 1. */
    private static final class Wide extends Samples {
        private static final double WHOLE = 4294967296.0;

        private final ToneCurve curve;
        private final boolean floating;

        Wide(BufferedImage image, ToneCurve curve, boolean floating) {
            super(image);
            this.curve = curve;
            this.floating = floating;
        }

        @Override
        void read(Raster raster, int y, float[][] light) {
            int width = light[0].length;
            double[] row =
                    raster.getPixels(raster.getMinX(), raster.getMinY() + y, width, 1, new double[width * bands()]);
            for (int x = 0; x < width; x++) {
                float cover =
                        alphaBand() < 0 ? 1 : (float) Math.max(0, Math.min(1, code(row[x * bands() + alphaBand()])));
                for (int c = 0; c < light.length; c++) {
                    light[c][x] = curve.linear(c, code(row[x * bands() + band(c)])) * cover;
                }
            }
        }

        /** Java reads 32 bits as a signed number. */
        private double code(double sample) {
            return floating ? sample : (sample < 0 ? sample + WHOLE : sample) / (WHOLE - 1);
        }
    }
}
