package app.yubble.core.raster;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import app.yubble.core.Pictures;
import org.junit.jupiter.api.Test;

class ShrinkingTest {
    @Test
    void partsThatDoNotEndWithASquareAreSummedUp() {
        Picture photo = Pictures.noise(103, 71, 3);
        Shrinking shrinking = new Shrinking(photo.size(), 20);
        for (Region part : new Region[] {
            new Region(0, 0, 52, 33), new Region(52, 0, 51, 33), new Region(0, 33, 52, 38), new Region(52, 33, 51, 38)
        }) {
            shrinking.add(Resample.crop(photo, part), part.x(), part.y());
        }
        Picture small = shrinking.picture();
        assertThat(small.size()).isEqualTo(new Size(21, 15));
        Picture inside = Resample.toSize(Resample.crop(photo, new Region(0, 0, 100, 70)), new Size(20, 14));
        assertThat(small.red().at(10, 6)).isCloseTo(inside.red().at(10, 6), within(1e-6f));
        double corner = (photo.blue().at(100, 70)
                        + photo.blue().at(101, 70)
                        + photo.blue().at(102, 70))
                / 3;
        assertThat((double) small.blue().at(20, 14)).isCloseTo(corner, within(1e-6));
    }

    @Test
    void aSmallPictureStaysAsItIs() {
        Picture photo = Pictures.noise(30, 20, 4);
        Shrinking shrinking = new Shrinking(photo.size(), 640);
        shrinking.add(photo, 0, 0);
        assertThat(Picture.difference(shrinking.picture(), photo)).isNull();
    }
}
