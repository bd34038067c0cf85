package app.yubble.core.depth;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import app.yubble.core.Pictures;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Progress;
import app.yubble.core.raster.Size;
import app.yubble.core.subject.Quality;
import org.junit.jupiter.api.Test;

class DepthTest {
    private final Picture landscape = new Picture(
            Pictures.plane(600, 400, (x, y) -> y < 160 ? 0.35 : 0.2 + 0.05 * Math.sin(x * 0.9) * Math.sin(y * 1.1)),
            Pictures.plane(600, 400, (x, y) -> y < 160 ? 0.5 : 0.25 + 0.05 * Math.sin(x * 0.9) * Math.sin(y * 1.1)),
            Pictures.plane(600, 400, (x, y) -> y < 160 ? 0.8 : 0.1));

    @Test
    void layoutPutsTheSkyFarthestAndTheGroundNearerDownwards() {
        Plane map = new LayoutEstimator()
                .estimate(landscape, Quality.BEST, Progress.NONE)
                .nearness();
        int w = map.width();
        int h = map.height();
        assertThat(map.at(w / 2, h / 8)).isLessThan(0.03f);
        assertThat(map.at(w / 2, h / 2)).isLessThan(map.at(w / 2, h * 3 / 4));
        assertThat(map.at(w / 2, h * 3 / 4)).isLessThan(map.at(w / 2, h - 3));
        assertThat(map.range().low()).isGreaterThanOrEqualTo(0);
        assertThat(map.range().high()).isLessThanOrEqualTo(1);
    }

    @Test
    void layoutWorksOnPicturesOfAnyShape() {
        for (Size size : new Size[] {new Size(1, 1), new Size(3, 500), new Size(2000, 100)}) {
            Picture picture = Pictures.noise(size.width(), size.height(), 4);
            Plane map = new LayoutEstimator()
                    .estimate(picture, Quality.BEST, Progress.NONE)
                    .nearness();
            assertThat(map.size().hasShapeOf(size)).isTrue();
            assertThat(map.range().low()).isBetween(0f, 1f);
        }
    }

    @Test
    void anEstimateIsBroughtOntoThePicturesEdges() {
        Picture picture = Pictures.grey(600, 400, (x, y) -> x < 300 ? 0.05 : 0.7);
        Plane coarse = Pictures.plane(150, 100, (x, y) -> Math.max(0.2, Math.min(0.8, (x - 70) / 10.0)));
        Plane fine = DepthEdges.follow(DepthEstimate.of(coarse), picture, 1);
        assertThat(fine.size()).isEqualTo(picture.size());
        assertThat(fine.at(302, 200) - fine.at(297, 200)).isGreaterThan(0.2f);
    }

    @Test
    void aMapOfAnotherShapeIsRefusedWithBothSizes() {
        Plane square = new Plane(100, 100);
        assertThatThrownBy(() -> DepthEdges.follow(DepthEstimate.of(square), landscape, 0))
                .isInstanceOf(DepthShapeException.class)
                .hasMessageContaining("100x100")
                .hasMessageContaining("600x400");
    }
}
