package app.yubble.bench;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Size;
import java.io.IOException;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;

class LensTruthTest {
    /** The lens against pictures that a ray tracer drew through real apertures, from exact depth and unclipped light. */
    @Test
    void theLensComesCloseToEveryRayTracedAperture() throws IOException {
        int shots = 0;
        double sum = 0;
        double gaussian = 0;
        for (TruthScene scene : TruthScene.all(Path.of("../demo/lens"))) {
            for (TruthScene.Shot shot : scene.shots()) {
                LensCard.Line line = LensCard.scored(scene, shot);
                String name = scene.name() + " at " + shot.focus() + " m through " + shot.diameter() + " m";
                assertThat(line.ours().psnr()).as(name).isGreaterThan(34);
                assertThat(line.ours().ssim()).as(name).isGreaterThan(0.95);
                assertThat(line.ours().psnr())
                        .as(name)
                        .isGreaterThan(line.untouched().psnr() + 4);
                assertThat(line.ours().band())
                        .as(name + ", at depth edges")
                        .isGreaterThan(line.gaussian().band() + 0.4);
                sum += line.ours().psnr();
                gaussian += line.gaussian().psnr();
                shots++;
            }
        }
        assertThat(shots).isGreaterThanOrEqualTo(12);
        assertThat(sum / shots).isGreaterThan(38.5).isGreaterThan(gaussian / shots + 2);
    }

    @Test
    void likenessOfKnownPictures() {
        Picture white = grey(1);
        boolean[] all = new boolean[24 * 24];
        assertThat(Likeness.of(white, white, all).psnr()).isEqualTo(Likeness.MOST);
        assertThat(Likeness.of(white, white, all).ssim()).isCloseTo(1, within(1e-6));
        // A tenth less on the screen's scale, everywhere: -20 log10 0.1.
        Picture darker = grey((float) Math.pow(0.9, 2.2));
        assertThat(Likeness.of(darker, white, all).psnr()).isCloseTo(20, within(0.01));
        // Light beyond white shows as white.
        assertThat(Likeness.of(grey(7), white, all).psnr()).isEqualTo(Likeness.MOST);
    }

    private static Picture grey(float value) {
        Plane plane = Plane.filled(new Size(24, 24), value);
        return new Picture(plane, plane, plane);
    }

    @Test
    void theGaussianKeepsAConstantPictureAndSpreadsAPoint() {
        Plane radius = Plane.filled(new Size(24, 24), 4);
        assertThat(VariableGaussian.of(grey(0.4f), radius).red().at(3, 20)).isCloseTo(0.4f, within(1e-5f));
        Plane point = new Plane(24, 24);
        point.samples()[12 * 24 + 12] = 1;
        Plane out =
                VariableGaussian.of(new Picture(point, point, point), radius).red();
        // sigma 2: 1 / (2 pi 4) in the middle, exp(-1/2) of it at 2 px.
        assertThat(out.at(12, 12)).isCloseTo(0.0398f, within(4e-4f));
        assertThat(out.at(14, 12)).isCloseTo(0.0398f * 0.6065f, within(4e-4f));
    }
}
