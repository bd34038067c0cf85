package app.yubble.media.picture;

import app.yubble.core.raster.Bands;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Size;
import java.awt.Image;
import java.awt.Rectangle;
import java.awt.color.ColorSpace;
import java.awt.image.BufferedImage;
import java.awt.image.ColorModel;
import java.awt.image.ComponentColorModel;
import java.awt.image.DataBuffer;
import java.awt.image.DataBufferByte;
import java.awt.image.DataBufferUShort;
import java.awt.image.Raster;
import java.awt.image.RenderedImage;
import java.awt.image.SampleModel;
import java.awt.image.WritableRaster;
import java.util.Vector;
import org.jspecify.annotations.Nullable;

/**
 * Code values of a picture, in strips of rows: memory in pieces is still found when there is no room left for 600 MB side by side.
 * Values of eight bits are dithered by less than half a step, by their place, so that a part has the noise that the whole has there.
 */
final class CodedImage implements RenderedImage {
    /** Bytes of a strip, at most, where the picture is not very wide. */
    private static final int MOST_BYTES = 48_000_000;
    /** Strips are multiples of it high, so that those of a JPEG lie within one. */
    static final int ROWS = 128;

    private final int width;
    private final int height;
    /** Of all strips but the last. */
    private final int stripHeight;

    private final BufferedImage[] strips;

    /** @param deep whether samples have sixteen bits instead of eight */
    CodedImage(Size size, boolean deep) {
        this(size, deep, Math.max(1, MOST_BYTES / ((deep ? 6 : 3) * size.width()) / ROWS) * ROWS);
    }

    CodedImage(Size size, boolean deep, int stripHeight) {
        width = size.width();
        height = size.height();
        this.stripHeight = Math.min(height, stripHeight);
        strips = new BufferedImage[(height + this.stripHeight - 1) / this.stripHeight];
        for (int i = 0; i < strips.length; i++) {
            int rows = Math.min(this.stripHeight, height - i * this.stripHeight);
            strips[i] = deep ? sixteenBit(width, rows) : new BufferedImage(width, rows, BufferedImage.TYPE_3BYTE_BGR);
        }
    }

    /** All of a picture in one. */
    static BufferedImage of(Picture picture, ToneCurve curve, boolean deep) {
        CodedImage out = new CodedImage(picture.size(), deep, picture.height());
        out.put(picture, curve, 0, 0);
        return out.strips[0];
    }

    private static BufferedImage sixteenBit(int width, int height) {
        WritableRaster raster = Raster.createInterleavedRaster(DataBuffer.TYPE_USHORT, width, height, 3, null);
        ComponentColorModel model = new ComponentColorModel(
                ColorSpace.getInstance(ColorSpace.CS_sRGB), false, false, 1, DataBuffer.TYPE_USHORT);
        return new BufferedImage(model, raster, false, null);
    }

    /** Puts the code values of a part there; its upper left corner is at (left, top). */
    void put(Picture part, ToneCurve curve, int left, int top) {
        for (int i = top / stripHeight; i < strips.length && i * stripHeight < top + part.height(); i++) {
            DataBuffer data = strips[i].getRaster().getDataBuffer();
            int first = Math.max(0, i * stripHeight - top);
            int end = Math.min(part.height(), (i + 1) * stripHeight - top);
            int origin = i * stripHeight * width;
            Bands.ofRows(end - first, (from, to) -> {
                for (int y = first + from; y < first + to; y++) {
                    int place = (top + y) * width + left;
                    if (data instanceof DataBufferByte bytes) {
                        putRow(part, y, curve, bytes.getData(), place, place - origin);
                    } else {
                        putRow(part, y, curve, ((DataBufferUShort) data).getData(), place - origin);
                    }
                }
            });
        }
    }

    private static void putRow(Picture part, int y, ToneCurve curve, byte[] data, int place, int to) {
        float[] red = part.red().samples();
        float[] green = part.green().samples();
        float[] blue = part.blue().samples();
        EightBit redCode = curve.eightBit(0);
        EightBit greenCode = curve.eightBit(1);
        EightBit blueCode = curve.eightBit(2);
        int row = y * part.width();
        for (int x = 0; x < part.width(); x++) {
            float noise = (((place + x) * 0x9E3779B1) >>> 8) * (0.9f / (1 << 24)) - 0.45f;
            int at = 3 * (to + x);
            data[at] = blueCode.of(blue[row + x], noise);
            data[at + 1] = greenCode.of(green[row + x], noise);
            data[at + 2] = redCode.of(red[row + x], noise);
        }
    }

    private static void putRow(Picture part, int y, ToneCurve curve, short[] data, int to) {
        for (int c = 0; c < 3; c++) {
            float[] encoding = curve.encoding(c);
            float[] from = part.planes().get(c).samples();
            int row = y * part.width();
            for (int x = 0; x < part.width(); x++) {
                data[3 * (to + x) + c] = (short) Math.round(ToneCurve.encoded(encoding, from[row + x]) * 65535);
            }
        }
    }

    /** Some rows; they are not copied where they lie within a strip. */
    BufferedImage rows(int top, int count) {
        int strip = top / stripHeight;
        if (top + count <= (strip + 1) * stripHeight) {
            return strips[strip].getSubimage(0, top - strip * stripHeight, width, count);
        }
        BufferedImage out = new CodedImage(new Size(width, count), isDeep(), count).strips[0];
        out.getRaster().setRect(0, -top, getData(new Rectangle(0, top, width, count)));
        return out;
    }

    private boolean isDeep() {
        return strips[0].getSampleModel().getDataType() == DataBuffer.TYPE_USHORT;
    }

    @Override
    public Raster getTile(int tileX, int tileY) {
        return strips[tileY].getRaster().createTranslatedChild(0, tileY * stripHeight);
    }

    @Override
    public Raster getData(Rectangle region) {
        int strip = region.y / stripHeight;
        if (region.y + region.height <= (strip + 1) * stripHeight) {
            return getTile(0, strip)
                    .createChild(region.x, region.y, region.width, region.height, region.x, region.y, null);
        }
        return copyData(
                getTile(0, strip).createCompatibleWritableRaster(region.x, region.y, region.width, region.height));
    }

    @Override
    public Raster getData() {
        return getData(new Rectangle(0, 0, width, height));
    }

    @Override
    public WritableRaster copyData(@Nullable WritableRaster into) {
        WritableRaster out = into == null ? getTile(0, 0).createCompatibleWritableRaster(0, 0, width, height) : into;
        int end = out.getMinY() + out.getHeight();
        for (int y = out.getMinY(); y < end; y = (y / stripHeight + 1) * stripHeight) {
            int rows = Math.min(end, (y / stripHeight + 1) * stripHeight) - y;
            out.setRect(getData(new Rectangle(out.getMinX(), y, out.getWidth(), rows)));
        }
        return out;
    }

    @Override
    public ColorModel getColorModel() {
        return strips[0].getColorModel();
    }

    @Override
    public SampleModel getSampleModel() {
        return strips[0].getSampleModel();
    }

    @Override
    public int getWidth() {
        return width;
    }

    @Override
    public int getHeight() {
        return height;
    }

    @Override
    public int getMinX() {
        return 0;
    }

    @Override
    public int getMinY() {
        return 0;
    }

    @Override
    public int getNumXTiles() {
        return 1;
    }

    @Override
    public int getNumYTiles() {
        return strips.length;
    }

    @Override
    public int getMinTileX() {
        return 0;
    }

    @Override
    public int getMinTileY() {
        return 0;
    }

    @Override
    public int getTileWidth() {
        return width;
    }

    @Override
    public int getTileHeight() {
        return stripHeight;
    }

    @Override
    public int getTileGridXOffset() {
        return 0;
    }

    @Override
    public int getTileGridYOffset() {
        return 0;
    }

    @Override
    public @Nullable Vector<RenderedImage> getSources() {
        return null;
    }

    @Override
    public Object getProperty(String name) {
        return Image.UndefinedProperty;
    }

    @Override
    public String @Nullable [] getPropertyNames() {
        return null;
    }
}
