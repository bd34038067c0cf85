package app.yubble.core.clip;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Size;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CancellationException;
import org.junit.jupiter.api.Test;

class SideBySideTest {
    private static final FrameSource FRAMES = (from, to, taker) -> {
        for (int i = from; i < to; i++) {
            taker.take(i, Picture.blank(new Size(2, 2)));
        }
    };

    @Test
    void resultsComeInTheOrderOfTheFramesWhateverTheyTake() {
        List<String> out = new ArrayList<>();
        SideBySide.run(
                FRAMES,
                3,
                23,
                3,
                (frame, picture) -> {
                    long until = System.nanoTime() + (frame % 3) * 2_000_000L;
                    while (System.nanoTime() < until) {
                        Thread.onSpinWait();
                    }
                    return "f" + frame;
                },
                (frame, result) -> out.add(frame + result));
        assertThat(out).hasSize(20).startsWith("3f3", "4f4").endsWith("22f22");
    }

    @Test
    void aFaultOfOneFrameEndsAll() {
        assertThatThrownBy(() -> SideBySide.run(
                        FRAMES,
                        0,
                        100,
                        2,
                        (frame, picture) -> {
                            if (frame == 5) {
                                throw new IllegalStateException("frame five");
                            }
                            return frame;
                        },
                        (frame, result) -> assertThat(frame).isLessThan(5)))
                .hasMessage("frame five");
    }

    @Test
    void whoeverTakesResultsCanCallTheRestOff() {
        assertThatThrownBy(() -> SideBySide.run(FRAMES, 0, 1000, 2, (frame, picture) -> frame, (frame, result) -> {
                    if (frame == 7) {
                        throw new CancellationException("enough");
                    }
                }))
                .isInstanceOf(CancellationException.class);
    }
}
