package app.yubble.core.refocus;

import static org.assertj.core.api.Assertions.assertThat;

import app.yubble.core.Pictures;
import app.yubble.core.depth.DepthEstimate;
import app.yubble.core.focus.SharpBand;
import app.yubble.core.lens.Aperture;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Progress;
import app.yubble.core.raster.Resample;
import app.yubble.core.raster.Size;
import app.yubble.core.recipe.DepthChoice;
import app.yubble.core.recipe.Recipe;
import java.nio.ByteBuffer;
import java.util.HashMap;
import java.util.Map;
import java.util.Random;
import java.util.function.Supplier;
import org.junit.jupiter.api.Test;

class StageStoreTest {
    private static final Size FULL = new Size(900, 600);
    private static final Size SEEN = new Size(300, 200);
    private static final Recipe RECIPE = Recipe.INITIAL
            .withDepth(DepthChoice.of(DepthChoice.Source.FILE))
            .withBand(SharpBand.around(0.8, 0.1, 0))
            .withAperture(Aperture.DEFAULT.withFree(60));

    /** A noisy card with a lamp before a wall; it counts how often its file is read. */
    private static final class Card implements Photo {
        private final int mostStored;
        private final Picture picture;
        int read;

        Card(int mostStored) {
            this.mostStored = mostStored;
            Random noise = new Random(7);
            picture = Pictures.grey(
                    FULL.width(),
                    FULL.height(),
                    (x, y) -> Math.hypot(x - 700, y - 150) < 8
                            ? 1
                            : (isCard(x) ? 0.3 : 0.2) + 0.01 * noise.nextGaussian());
        }

        private static boolean isCard(int x) {
            return x > 200 && x < 500;
        }

        @Override
        public String id() {
            return "card";
        }

        @Override
        public String depthId(DepthChoice.Source source) {
            return "depth";
        }

        @Override
        public Size size() {
            return FULL;
        }

        @Override
        public Size kept(Size wanted) {
            return new Size(600, 400);
        }

        @Override
        public int mostStored() {
            return mostStored;
        }

        @Override
        public Picture picture(Size size) {
            read++;
            return Resample.toSize(picture, size);
        }

        @Override
        public DepthEstimate depth(DepthChoice.Source source) {
            read++;
            return DepthEstimate.of(Pictures.plane(90, 60, (x, y) -> isCard(10 * x) ? 0.8 : 0.2));
        }
    }

    /** In memory, as bytes. */
    private static final class Bytes implements StageStore {
        final Map<StageKey, ByteBuffer> all = new HashMap<>();

        @Override
        public ByteBuffer find(String still, StageKey key) {
            ByteBuffer known = all.get(key);
            return known == null ? null : known.duplicate();
        }

        @Override
        public void keep(String still, StageKey key, Supplier<ByteBuffer> written) {
            assertThat(still).isEqualTo("card");
            all.put(key, written.get());
        }
    }

    private static Picture look(Card card, StageStore store, Size size) {
        RefocusLine line = new RefocusLine(StageCache.keepingAll(), store);
        return line.render(new Viewer(), card, RECIPE, View.of(size), Progress.NONE);
    }

    @Test
    void whatIsOpenedAgainIsTheVerySameAndIsNotReadAgain() {
        Bytes store = new Bytes();
        Card card = new Card(600);
        Picture without = look(new Card(0), StageStore.NONE, SEEN);
        Picture first = look(card, store, SEEN);
        card.read = 0;
        Picture again = look(card, store, SEEN);
        assertThat(card.read).isZero();
        assertThat(Picture.difference(first, again)).isNull();
        assertThat(Picture.difference(without, again)).isNull();
        // Something is blurred, so that the same is not just the photo.
        assertThat(Picture.difference(card.picture(SEEN), again)).isNotNull();
    }

    @Test
    void largeSizesAndStillsThatStayNowhereAreNotKept() {
        Bytes store = new Bytes();
        look(new Card(0), store, SEEN);
        assertThat(store.all).isEmpty();
        look(new Card(SEEN.longSide()), store, FULL);
        assertThat(store.all).as("its noise alone").hasSize(1);
    }
}
