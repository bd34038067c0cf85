package app.yubble.media.layered;

import app.yubble.core.raster.Bands;
import app.yubble.core.refocus.Layers;
import app.yubble.media.picture.PictureWriter;
import app.yubble.media.picture.ToneCurve;
import java.awt.color.ColorSpace;
import java.awt.image.BufferedImage;
import java.awt.image.ComponentColorModel;
import java.awt.image.DataBuffer;
import java.awt.image.DataBufferByte;
import java.awt.image.DataBufferUShort;
import java.awt.image.Raster;
import java.awt.image.WritableRaster;

/**
 * Layers as they stand in files. Other programs compose code values, the line composes light; so the layer's colour and opacity are
 * solved for: composing their code values gives the flat result to the nearest value.
 *
 * @param photo untouched
 * @param refocused the layer over it, with its opacity
 * @param flat the result
 */
record LayerImages(BufferedImage photo, BufferedImage refocused, BufferedImage flat) {
    /** @param deep whether samples have sixteen bits instead of eight */
    static LayerImages of(Layers layers, ToneCurve curve, boolean deep) {
        BufferedImage photo = PictureWriter.encoded(layers.photo(), curve, deep);
        BufferedImage flat = PictureWriter.encoded(layers.composed(), curve, deep);
        BufferedImage refocused = PictureWriter.encoded(layers.refocused(), curve, deep);
        return new LayerImages(photo, solved(layers, photo, refocused, flat, deep), flat);
    }

    private static BufferedImage solved(
            Layers layers, BufferedImage photo, BufferedImage refocused, BufferedImage flat, boolean deep) {
        int width = photo.getWidth();
        int height = photo.getHeight();
        WritableRaster raster = Raster.createInterleavedRaster(
                deep ? DataBuffer.TYPE_USHORT : DataBuffer.TYPE_BYTE, width, height, 4, null);
        int most = deep ? 0xffff : 0xff;
        Codes photoCodes = Codes.of(photo);
        Codes ownCodes = Codes.of(refocused);
        Codes flatCodes = Codes.of(flat);
        Codes out = new Codes(raster.getDataBuffer(), 4, false);
        float[] shares = layers.share().samples();
        Bands.ofRows(height, (from, to) -> {
            for (int i = from * width; i < to * width; i++) {
                int opacity = Math.round(shares[i] * most);
                for (int c = 0; c < 3; c++) {
                    opacity = Math.max(opacity, least(photoCodes.at(i, c), flatCodes.at(i, c), most));
                }
                for (int c = 0; c < 3; c++) {
                    out.put(
                            i,
                            c,
                            opacity == 0
                                    ? ownCodes.at(i, c)
                                    : colour(photoCodes.at(i, c), flatCodes.at(i, c), opacity, most));
                }
                out.put(i, 3, opacity);
            }
        });
        ComponentColorModel model = new ComponentColorModel(
                ColorSpace.getInstance(ColorSpace.CS_sRGB),
                true,
                false,
                ComponentColorModel.TRANSLUCENT,
                raster.getDataBuffer().getDataType());
        return new BufferedImage(model, raster, false, null);
    }

    /** The least opacity with which some colour over {@code below} gives {@code wanted}. */
    private static int least(int below, int wanted, int most) {
        if (wanted == below) {
            return 0;
        }
        double share = wanted > below ? (double) (wanted - below) / (most - below) : (double) (below - wanted) / below;
        return (int) Math.ceil(share * most);
    }

    private static int colour(int below, int wanted, int opacity, int most) {
        long of = (long) wanted * most - (long) (most - opacity) * below;
        return (int) Math.max(0, Math.min(most, Math.round((double) of / opacity)));
    }

    /** Samples of an image whose channels lie side by side. */
    private record Codes(DataBuffer data, int channels, boolean blueFirst) {
        static Codes of(BufferedImage image) {
            return new Codes(image.getRaster().getDataBuffer(), 3, image.getType() == BufferedImage.TYPE_3BYTE_BGR);
        }

        int at(int pixel, int channel) {
            int i = pixel * channels + (blueFirst ? 2 - channel : channel);
            return data instanceof DataBufferByte bytes
                    ? bytes.getData()[i] & 0xff
                    : ((DataBufferUShort) data).getData()[i] & 0xffff;
        }

        void put(int pixel, int channel, int value) {
            int i = pixel * channels + channel;
            if (data instanceof DataBufferByte bytes) {
                bytes.getData()[i] = (byte) value;
            } else {
                ((DataBufferUShort) data).getData()[i] = (short) value;
            }
        }
    }
}
