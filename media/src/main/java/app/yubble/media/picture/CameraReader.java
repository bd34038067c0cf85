package app.yubble.media.picture;

import app.yubble.core.raster.Size;
import com.drew.metadata.Directory;
import com.drew.metadata.exif.ExifSubIFDDirectory;
import java.util.OptionalDouble;

/** What EXIF says about how a picture was taken. */
final class CameraReader {
    private static final double FULL_FRAME_WIDTH = 36;
    private static final double SAME_SHAPE = 0.015;

    private final Directory exif;
    private final Size size;

    private CameraReader(Directory exif, Size size) {
        this.exif = exif;
        this.size = size;
    }

    /** @param size of the picture that the file holds */
    static Camera read(Directory exif, Size size) {
        CameraReader reader = new CameraReader(exif, size);
        OptionalDouble sensor = reader.sensorWidth();
        return new Camera(
                reader.positive(ExifSubIFDDirectory.TAG_FOCAL_LENGTH),
                sensor.isPresent() && sensor.getAsDouble() <= 200 && sensor.getAsDouble() >= 1
                        ? sensor
                        : OptionalDouble.empty(),
                reader.positive(ExifSubIFDDirectory.TAG_FNUMBER),
                reader.positive(ExifSubIFDDirectory.TAG_SUBJECT_DISTANCE));
    }

    /** Of the part of the sensor that the picture shows, along its longer side. */
    private OptionalDouble sensorWidth() {
        OptionalDouble focal = positive(ExifSubIFDDirectory.TAG_FOCAL_LENGTH);
        OptionalDouble equivalent = positive(ExifSubIFDDirectory.TAG_35MM_FILM_EQUIV_FOCAL_LENGTH);
        double width;
        if (focal.isPresent() && equivalent.isPresent()) {
            // Cameras count their own digital zoom in here.
            width = FULL_FRAME_WIDTH * focal.getAsDouble() / equivalent.getAsDouble();
        } else {
            double perMillimetre = pixelsPerMillimetre();
            double zoom = positive(ExifSubIFDDirectory.TAG_DIGITAL_ZOOM_RATIO).orElse(1);
            width = taken().longSide() / perMillimetre / Math.max(1, zoom);
        }
        return width > 0 && Double.isFinite(width) ? OptionalDouble.of(width * crop()) : OptionalDouble.empty();
    }

    private double pixelsPerMillimetre() {
        boolean wide = taken().width() >= taken().height();
        double resolution = positive(
                        wide
                                ? ExifSubIFDDirectory.TAG_FOCAL_PLANE_X_RESOLUTION
                                : ExifSubIFDDirectory.TAG_FOCAL_PLANE_Y_RESOLUTION)
                .orElse(Double.NaN);
        Integer unit = exif.getInteger(ExifSubIFDDirectory.TAG_FOCAL_PLANE_RESOLUTION_UNIT);
        return switch (unit == null ? 2 : unit) {
            case 2 -> resolution / 25.4;
            case 3 -> resolution / 10;
            case 4 -> resolution;
            case 5 -> resolution * 1000;
            default -> Double.NaN;
        };
    }

    /** The size in which the camera wrote the picture. */
    private Size taken() {
        Integer width = exif.getInteger(ExifSubIFDDirectory.TAG_EXIF_IMAGE_WIDTH);
        Integer height = exif.getInteger(ExifSubIFDDirectory.TAG_EXIF_IMAGE_HEIGHT);
        return width == null || height == null || width <= 0 || height <= 0 ? size : new Size(width, height);
    }

    /** The share of the longer side that was kept: a picture of another shape, and smaller, has been cut. */
    private double crop() {
        double before = (double) taken().longSide() / shortSide(taken());
        double now = (double) size.longSide() / shortSide(size);
        boolean sameShape = Math.abs(now / before - 1) < SAME_SHAPE;
        return sameShape || size.longSide() > taken().longSide() ? 1 : (double) size.longSide() / taken().longSide();
    }

    private static int shortSide(Size of) {
        return Math.min(of.width(), of.height());
    }

    private OptionalDouble positive(int tag) {
        Double value = exif.getDoubleObject(tag);
        return value == null || !(value > 0) || value.isInfinite() ? OptionalDouble.empty() : OptionalDouble.of(value);
    }
}
