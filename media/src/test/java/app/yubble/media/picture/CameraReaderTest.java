package app.yubble.media.picture;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import app.yubble.core.raster.Size;
import com.drew.metadata.exif.ExifSubIFDDirectory;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class CameraReaderTest {
    private final ExifSubIFDDirectory exif = new ExifSubIFDDirectory();

    private void taken(int width, int height) {
        exif.setInt(ExifSubIFDDirectory.TAG_EXIF_IMAGE_WIDTH, width);
        exif.setInt(ExifSubIFDDirectory.TAG_EXIF_IMAGE_HEIGHT, height);
    }

    private double sensor(int width, int height) {
        return CameraReader.read(exif, new Size(width, height)).sensorWidth().orElse(-1);
    }

    @ParameterizedTest
    @CsvSource({"2,6773.333", "3,2666.667", "4,266.6667", "5,0.2666667"})
    void theFocalPlaneResolutionTellsTheSensorInEveryUnit(int unit, double resolution) {
        taken(6000, 4000);
        exif.setDouble(ExifSubIFDDirectory.TAG_FOCAL_PLANE_X_RESOLUTION, resolution);
        exif.setInt(ExifSubIFDDirectory.TAG_FOCAL_PLANE_RESOLUTION_UNIT, unit);
        assertThat(sensor(6000, 4000)).isCloseTo(22.5, within(0.01));
        // Made smaller as a whole, turned upright: still all of the sensor.
        assertThat(sensor(1500, 1000)).isCloseTo(22.5, within(0.01));
        assertThat(sensor(1000, 1500)).isCloseTo(22.5, within(0.01));
    }

    @Test
    void aPictureOfAnotherShapeHasBeenCutAndShowsLessOfTheSensor() {
        taken(6000, 4000);
        exif.setDouble(ExifSubIFDDirectory.TAG_FOCAL_LENGTH, 50);
        exif.setDouble(ExifSubIFDDirectory.TAG_35MM_FILM_EQUIV_FOCAL_LENGTH, 75);
        assertThat(sensor(6000, 4000)).isCloseTo(24, within(1e-9));
        assertThat(sensor(3000, 3000)).isCloseTo(12, within(1e-9));
    }

    @Test
    void digitalZoomShowsLessOfTheSensor() {
        taken(4000, 3000);
        exif.setDouble(ExifSubIFDDirectory.TAG_FOCAL_PLANE_X_RESOLUTION, 500);
        exif.setInt(ExifSubIFDDirectory.TAG_FOCAL_PLANE_RESOLUTION_UNIT, 4);
        exif.setDouble(ExifSubIFDDirectory.TAG_DIGITAL_ZOOM_RATIO, 2);
        assertThat(sensor(4000, 3000)).isCloseTo(4, within(1e-9));
    }

    @ParameterizedTest
    @CsvSource({"2,0", "7,266", "4,1e-9", "4,1e9"})
    void nonsenseIsNotBelieved(int unit, double resolution) {
        taken(6000, 4000);
        exif.setDouble(ExifSubIFDDirectory.TAG_FOCAL_PLANE_X_RESOLUTION, resolution);
        exif.setInt(ExifSubIFDDirectory.TAG_FOCAL_PLANE_RESOLUTION_UNIT, unit);
        assertThat(sensor(6000, 4000)).isEqualTo(-1);
    }
}
