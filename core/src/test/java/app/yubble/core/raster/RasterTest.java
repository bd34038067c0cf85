package app.yubble.core.raster;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import app.yubble.core.Pictures;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class RasterTest {
    @ParameterizedTest
    @CsvSource({"1,1,3", "7,5,2", "40,90,6", "5,300,400"})
    void boxMeanIsTheMeanOfThePartInside(int width, int height, int radius) {
        Plane source = Pictures.noise(width, height, 1).red();
        Plane naive = Pictures.plane(width, height, (x, y) -> {
            double sum = 0;
            int count = 0;
            for (int py = Math.max(0, y - radius); py <= Math.min(height - 1, y + radius); py++) {
                for (int px = Math.max(0, x - radius); px <= Math.min(width - 1, x + radius); px++) {
                    sum += source.at(px, py);
                    count++;
                }
            }
            return sum / count;
        });
        assertThat(Pictures.distance(BoxMean.of(source, radius), naive)).isLessThan(2e-6);
    }

    @Test
    void boxMeanKeepsItsPrecisionAtPhotoSize() {
        Plane source = Plane.filled(new Size(6000, 4000), 0.7f);
        assertThat(Pictures.distance(BoxMean.of(source, 200), source)).isLessThan(1e-6);
    }

    @ParameterizedTest
    @CsvSource({"100,60,33,20", "640,427,100,67", "7,7,7,3", "5,9,1,1"})
    void shrinkingKeepsTheMean(int width, int height, int toWidth, int toHeight) {
        Plane source = Pictures.noise(width, height, 2).green();
        Plane small = Resample.shrink(source, new Size(toWidth, toHeight));
        assertThat(Pictures.mean(small)).isCloseTo(Pictures.mean(source), within(1e-5));
    }

    @Test
    void enlargingKeepsARampARamp() {
        Plane ramp = Pictures.plane(10, 4, (x, y) -> x + 0.5);
        Plane large = Resample.enlarge(ramp, new Size(40, 16));
        for (int x = 4; x < 36; x++) {
            assertThat(large.at(x, 8)).isCloseTo((x + 0.5f) / 4, within(1e-5f));
        }
    }

    @Test
    void pickingMakesNoNewValues() {
        Plane halves = Pictures.plane(101, 10, (x, y) -> x < 50 ? 0.2 : 0.9);
        for (float sample : Resample.pick(halves, new Size(37, 5)).samples()) {
            assertThat(sample).isIn(0.2f, 0.9f);
        }
    }

    @Test
    void guidedFilterMovesASoftEdgeOntoTheGuidesEdge() {
        Plane guide = Pictures.plane(120, 40, (x, y) -> x < 60 ? 0.2 : 0.8);
        Plane soft = Pictures.plane(120, 40, (x, y) -> Math.max(0, Math.min(1, (x - 45) / 30.0)));
        Plane out = GuidedFilter.fit(guide, soft, 16, 1e-4f).apply(guide);
        // In the soft input one pixel at the edge makes a thirtieth of the step; on the guide's edge nearly half of it.
        assertThat(out.at(60, 20) - out.at(59, 20)).isGreaterThan(0.45f);
    }

    @Test
    void sizesOfOneShapeAllowForWholePixels() {
        assertThat(new Size(1000, 667).hasShapeOf(new Size(6000, 4000))).isTrue();
        assertThat(new Size(6000, 4000).fitting(1000)).isEqualTo(new Size(1000, 667));
        assertThat(new Size(1000, 750).hasShapeOf(new Size(6000, 4000))).isFalse();
        assertThatThrownBy(() -> new Size(0, 5)).hasMessageContaining("0x5");
    }

    @Test
    void croppingTakesExactlyTheRegion() {
        Plane numbered = Pictures.plane(10, 10, (x, y) -> y * 10 + x);
        Plane part = Resample.crop(numbered, new Region(3, 4, 2, 2));
        assertThat(part.samples()).containsExactly(43, 44, 53, 54);
        assertThatThrownBy(() -> Resample.crop(numbered, new Region(9, 9, 2, 2)))
                .isInstanceOf(IllegalArgumentException.class);
    }

    /** Bit patterns from the standard's own table: 0.5, -2, the largest, the smallest, minus zero, infinity, not a number. */
    @Test
    void halfPrecisionNumbersAreReadExactly() {
        assertThat(HalfFloat.toFloat((short) 0x3800)).isEqualTo(0.5f);
        assertThat(HalfFloat.toFloat((short) 0xc000)).isEqualTo(-2f);
        assertThat(HalfFloat.toFloat((short) 0x7bff)).isEqualTo(65504f);
        assertThat(HalfFloat.toFloat((short) 1)).isEqualTo(0x1p-24f);
        assertThat(HalfFloat.toFloat((short) 0x8000)).isEqualTo(-0f);
        assertThat(HalfFloat.toFloat((short) 0x7c00)).isInfinite();
        assertThat(HalfFloat.toFloat((short) 0x7e00)).isNaN();
    }

    @Test
    void regionsGrowMeetAndAreHeldTogether() {
        Size picture = new Size(100, 80);
        Region region = new Region(10, 70, 30, 5);
        assertThat(region.grown(12, picture)).isEqualTo(new Region(0, 58, 52, 22));
        assertThat(region.meet(new Region(35, 72, 50, 50))).isEqualTo(new Region(35, 72, 5, 3));
        assertThat(region.meet(new Region(40, 70, 5, 5))).isNull();
        assertThat(Region.around(region, new Region(0, 0, 5, 5))).isEqualTo(new Region(0, 0, 40, 75));
        assertThat(Region.around(null, region)).isEqualTo(region);
        assertThat(Region.around(null, null)).isNull();
    }

    @Test
    void whatDiffersBetweenTwoPicturesIsFoundInEveryChannel() {
        Picture picture = Pictures.noise(60, 40, 5);
        Picture other = picture.copy();
        assertThat(Picture.difference(picture, picture)).isNull();
        assertThat(Picture.difference(picture, other)).isNull();
        other.blue().samples()[7 * 60 + 59] += 0.1f;
        other.red().samples()[30 * 60 + 12] += 0.1f;
        assertThat(Picture.difference(picture, other)).isEqualTo(new Region(12, 7, 48, 24));
        Resample.paste(Resample.crop(picture, new Region(50, 0, 10, 20)), other, 50, 0);
        assertThat(Picture.difference(picture, other)).isEqualTo(new Region(12, 30, 1, 1));
    }

    @Test
    void whatARegionHasOutsideAnotherOneIsItsPixelsOnce() {
        Region own = new Region(2, 3, 8, 6);
        for (Region other : List.of(
                new Region(4, 4, 2, 2),
                new Region(0, 0, 5, 20),
                new Region(6, 5, 20, 20),
                own,
                new Region(20, 20, 2, 2))) {
            List<Region> pieces = own.without(other);
            for (int y = 0; y < 12; y++) {
                for (int x = 0; x < 12; x++) {
                    Region pixel = new Region(x, y, 1, 1);
                    boolean left = own.meet(pixel) != null && other.meet(pixel) == null;
                    assertThat(pieces.stream()
                                    .filter(each -> each.meet(pixel) != null)
                                    .count())
                            .isEqualTo(left ? 1 : 0);
                }
            }
        }
    }

    @Test
    void aPartAtTheFarEdgeIsNeverScaledToNothing() {
        Size small = new Size(7, 5);
        for (int x = 0; x < 100; x++) {
            Region scaled = new Region(x, 99, 1, 1).scaled(0.07, 0.05, small);
            assertThat(scaled.within(small)).as("%s", scaled).isTrue();
        }
        assertThat(new Region(10, 20, 30, 40).scaled(2, 0.5, new Size(200, 200)))
                .isEqualTo(new Region(20, 10, 60, 20));
    }
}
