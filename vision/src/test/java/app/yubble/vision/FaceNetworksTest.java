package app.yubble.vision;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Progress;
import app.yubble.core.raster.Size;
import app.yubble.core.subject.Face;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class FaceNetworksTest {
    @TempDir
    Path folder;

    /** Sees a face in the middle of whatever it looks at, half as wide, with its eyes a tenth above the middle. */
    private static byte[] seeing(int side, float score) {
        float[] scores = new float[512];
        java.util.Arrays.fill(scores, -20);
        float[] numbers = new float[512 * 16];
        int anchor = (8 * 16 + 8) * 2;
        scores[anchor] = score;
        // The anchor's own middle lies half a cell beyond the picture's.
        float middle = -0.5f / 16 * side;
        float[] own = {
            middle,
            middle,
            side / 2f,
            side / 2f,
            middle - side / 10f,
            middle - side / 10f,
            middle + side / 10f,
            middle - side / 10f
        };
        System.arraycopy(own, 0, numbers, anchor * 16, own.length);
        float[] nothing = new float[384];
        java.util.Arrays.fill(nothing, -20);
        return TinyModel.taking("input:0", 1, side, side, 3)
                .weights("s", new long[] {1, 512, 1}, scores)
                .weights("t", new long[] {1, 384, 1}, nothing)
                .weights("n", new long[] {1, 512, 16}, numbers)
                .weights("m", new long[] {1, 384, 16}, new float[384 * 16])
                .node("Identity", "s", "Identity:0")
                .node("Identity", "t", "Identity_1:0")
                .node("Identity", "n", "Identity_2:0")
                .node("Identity", "m", "Identity_3:0")
                .answering("Identity:0", 1, 512, 1)
                .answering("Identity_1:0", 1, 384, 1)
                .answering("Identity_2:0", 1, 512, 16)
                .answering("Identity_3:0", 1, 384, 16)
                .build()
                .toByteArray();
    }

    private List<Face> found(float farScore, float nearScore) throws IOException {
        ModelFolder models = new ModelFolder(folder);
        Files.write(models.farFaces(), seeing(256, farScore));
        Files.write(models.nearFaces(), seeing(128, nearScore));
        return new FaceNetworks(models).find(Picture.blank(new Size(400, 400)), Progress.NONE);
    }

    @Test
    void theMainFaceComesFirstWithItsEyes() throws IOException {
        Face main = found(4, 4).get(0);
        assertThat(main.left()).isCloseTo(0.25, within(0.02));
        assertThat(main.top()).isCloseTo(0.25, within(0.02));
        assertThat(main.width()).isCloseTo(0.5, within(0.02));
        assertThat(main.one().x()).isCloseTo(0.4, within(0.02));
        assertThat(main.one().y()).isCloseTo(0.4, within(0.02));
        assertThat(main.other().x()).isCloseTo(0.6, within(0.02));
        assertThat(main.sure()).isGreaterThan(0.95);
    }

    @Test
    void whatACloserLookDoesNotSeeAgainIsNone() throws IOException {
        assertThat(found(4, -4)).isEmpty();
        assertThat(found(-4, -4)).isEmpty();
    }
}
