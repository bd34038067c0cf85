package app.yubble.core.refocus;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import app.yubble.core.Pictures;
import app.yubble.core.atmosphere.Atmosphere;
import app.yubble.core.atmosphere.Mist;
import app.yubble.core.atmosphere.Tone;
import app.yubble.core.depth.DepthEstimate;
import app.yubble.core.finish.Finish;
import app.yubble.core.focus.SharpBand;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Progress;
import app.yubble.core.raster.Region;
import app.yubble.core.raster.Resample;
import app.yubble.core.raster.Size;
import app.yubble.core.recipe.DepthChoice;
import app.yubble.core.recipe.Recipe;
import app.yubble.core.touchup.Stroke;
import app.yubble.core.touchup.Touchup;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CancellationException;
import org.junit.jupiter.api.Test;

class OnceOverTest {
    private static final Size SIZE = new Size(2500, 900);

    private static final Picture PHOTO = Pictures.noise(SIZE.width(), SIZE.height(), 7);

    /** The same photo, from a file that is read anew each time. */
    private static final class Filed implements Photo {
        private final HeldPhoto held = HeldPhoto.of(
                PHOTO,
                Pictures.plane(SIZE.width(), SIZE.height(), (x, y) -> Math.hypot(x - 1200, y - 400) < 300 ? 0.8 : 0.1));
        private final boolean handsOver;
        private int read;

        Filed(boolean handsOver) {
            this.handsOver = handsOver;
        }

        @Override
        public String id() {
            return held.id();
        }

        @Override
        public String depthId(DepthChoice.Source source) {
            return held.depthId(source);
        }

        @Override
        public Size size() {
            return SIZE;
        }

        @Override
        public Picture picture(Size size) {
            read++;
            Picture seen = held.picture(size);
            return handsOver ? seen.copy() : seen;
        }

        @Override
        public boolean knowsCutLight() {
            return true;
        }

        @Override
        public boolean handsOverPictures() {
            return handsOver;
        }

        @Override
        public DepthEstimate depth(DepthChoice.Source source) {
            return held.map();
        }
    }

    private static final Recipe PLAIN = Recipe.INITIAL
            .withDepth(DepthChoice.of(DepthChoice.Source.FILE))
            .withFinish(Finish.NONE)
            .withBand(SharpBand.around(0.8, 0.1, 0.02));

    private static final Recipe MISTY = PLAIN.withAtmosphere(
            Atmosphere.CLEAR.withMist(Mist.NONE.withDensity(0.6)).withBehind(new Tone(0, 0, 0, 0.5)));

    private static Picture once(Photo photo, Recipe recipe, List<Region> parts) {
        Picture out = Picture.blank(SIZE);
        RefocusLine.renderParts(photo, recipe, SIZE, StageStore.NONE, Progress.NONE, (part, picture) -> {
            parts.add(part);
            Resample.paste(picture, out, part.x(), part.y());
        });
        return out;
    }

    private static void assertAsWhole(Recipe recipe, boolean handsOver) {
        Filed photo = new Filed(handsOver);
        List<Region> parts = new ArrayList<>();
        Picture out = once(photo, recipe, parts);
        Picture whole = new RefocusLine(StageCache.keepingAll())
                .render(HeldPhoto.of(PHOTO, photo.held.map().nearness()), recipe, View.of(SIZE), Progress.NONE);
        assertThat(parts).hasSizeGreaterThan(1);
        assertThat(parts.stream().mapToLong(each -> each.size().pixels()).sum()).isEqualTo(SIZE.pixels());
        assertThat(Pictures.psnr(out, whole)).isGreaterThan(70);
        assertThat(photo.read).isEqualTo(1);
    }

    @Test
    void partsMakeUpTheWhole() {
        assertAsWhole(PLAIN, false);
    }

    @Test
    void withMistOverThePhotosOwnMemory() {
        assertAsWhole(MISTY, true);
    }

    @Test
    void aPictureThatIsNotHandedOverStaysAsItIs() {
        Picture before = PHOTO.copy();
        assertAsWhole(MISTY, false);
        assertThat(Picture.difference(before, PHOTO)).isNull();
    }

    @Test
    void withAllThatComesBeforeAndAfterTheLens() {
        Stroke dab = new Stroke(Stroke.Brush.of(0.2), 0.5f, 0.4f, 1);
        assertAsWhole(
                MISTY.withFinish(new Finish(1, 0.5))
                        .withOpacity(0.8)
                        .withTouchups(List.of(
                                Touchup.of("a", Touchup.Action.BLUR, 0.3, 0.8, dab),
                                Touchup.of("b", Touchup.Action.REVEAL, 0.7, 0.8, dab))),
                true);
    }

    @Test
    void whatChangesNothingGivesThePhoto() {
        for (Recipe each : List.of(PLAIN.withOpacity(0), PLAIN.withBand(SharpBand.EVERYTHING))) {
            Picture out = once(new Filed(true), each, new ArrayList<>());
            assertThat(Picture.difference(out, PHOTO)).isNull();
        }
    }

    @Test
    void itCanBeCalledOff() {
        assertThatThrownBy(() -> RefocusLine.renderParts(
                        new Filed(true),
                        PLAIN,
                        SIZE,
                        StageStore.NONE,
                        done -> {
                            if (done > 0.5) {
                                throw new CancellationException();
                            }
                        },
                        (part, picture) -> {}))
                .isInstanceOf(CancellationException.class);
    }
}
