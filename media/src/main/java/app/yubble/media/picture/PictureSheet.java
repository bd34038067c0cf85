package app.yubble.media.picture;

import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Resample;
import app.yubble.core.raster.Shrinking;
import app.yubble.core.raster.Size;
import java.io.IOException;
import java.io.OutputStream;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/**
 * A picture that is to be written and comes part by part. Only its code values are kept, so a large one takes a quarter of the memory of
 * its light.
 */
public final class PictureSheet {
    /** Pixels of the longer side of the picture that thumbnails are made from. */
    private static final int SMALL = 1280;
    /** Pixels of the longer side of a thumbnail, as EXIF has it. */
    private static final int THUMBNAIL = 160;

    private static final double THUMBNAIL_QUALITY = 0.8;

    private final Origin source;
    private final WriteSettings settings;
    private final Origin origin;
    private final Size size;
    /** Not before there is something to put into it. */
    private @Nullable CodedImage image;

    private final Shrinking small;

    /** @param source of the picture, with its size */
    public PictureSheet(Size size, Origin source, WriteSettings settings) {
        this.source = source;
        this.settings = settings;
        origin = settings.carried().by(source);
        this.size = size;
        small = new Shrinking(size, SMALL);
    }

    private static boolean isDeep(PictureWriter.Format format, Origin source) {
        return switch (format) {
            case PNG16, TIFF16 -> true;
            case AVIF -> source.isDeep();
            case JPEG, PNG8, TIFF8, WEBP -> false;
        };
    }

    /** A part in linear light, in the colours of the source; its upper left corner is at (x, y). */
    public void add(Picture part, int x, int y) {
        if (image == null) {
            image = new CodedImage(size, isDeep(settings.format(), source));
        }
        small.add(part, x, y);
        Picture there = settings.carried().space().converted(part, source).picture();
        image.put(there, origin.curve(), x, y);
    }

    /** All of it in linear light, at most so large, once all parts are there. */
    public Picture small(int longSide) {
        return Resample.toSize(small.picture(), size.fitting(Math.min(longSide, size.longSide())));
    }

    public void write(OutputStream out) throws IOException {
        CodedImage image = Objects.requireNonNull(this.image, "no part has come");
        switch (settings.format()) {
            case JPEG -> writeJpeg(image, out);
            case PNG8, PNG16 -> PngWriter.write(image, origin, out);
            case TIFF8, TIFF16 -> TiffWriter.write(List.of(image), origin, out);
            case WEBP -> CodecTools.webp(image, origin, settings.quality(), out);
            case AVIF -> CodecTools.avif(image, origin, settings, out);
        }
    }

    private void writeJpeg(CodedImage image, OutputStream out) throws IOException {
        byte[] bytes = StripedJpeg.of(image, settings.quality(), settings.halvesColour());
        ExifBlock exif = origin.notes().exif();
        byte[] exifBytes = exif == null ? null : exif.bytes(thumbnail());
        out.write(bytes, 0, 2);
        out.write(Blocks.jpegSegments(new Blocks(
                origin.profile(),
                exifBytes,
                origin.notes().xmp(),
                origin.notes().iptc())));
        out.write(bytes, 2, bytes.length - 2);
    }

    private byte[] thumbnail() throws IOException {
        Picture there =
                settings.carried().space().converted(small(THUMBNAIL), source).picture();
        return StripedJpeg.of(PictureWriter.encoded(there, origin.curve(), false), THUMBNAIL_QUALITY, true);
    }
}
