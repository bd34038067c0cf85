package app.yubble.core.refocus;

import static org.assertj.core.api.Assertions.assertThat;

import app.yubble.core.Pictures;
import app.yubble.core.depth.DepthEstimate;
import app.yubble.core.focus.SharpBand;
import app.yubble.core.lens.Aperture;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Progress;
import app.yubble.core.raster.Region;
import app.yubble.core.raster.Resample;
import app.yubble.core.raster.Size;
import app.yubble.core.recipe.DepthChoice;
import app.yubble.core.recipe.Recipe;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.ByteBuffer;
import java.nio.channels.Channels;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class StageStoreTest {
    private static final Size FULL = new Size(900, 600);
    private static final Size SEEN = new Size(300, 200);
    private static final Recipe RECIPE = Recipe.INITIAL
            .withDepth(DepthChoice.of(DepthChoice.Source.FILE))
            .withBand(SharpBand.around(0.8, 0.1, 0))
            .withAperture(Aperture.DEFAULT.withFree(60));

    /** A noisy card with a lamp before a wall; it counts how often its file is read. */
    private static final class Card implements Photo {
        private final boolean stored;
        private final Picture picture;
        int read;

        Card(boolean stored) {
            this.stored = stored;
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
            return wanted.width() > 600 ? FULL : new Size(600, 400);
        }

        @Override
        public boolean isStored() {
            return stored;
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
        public boolean has(String still, StageKey key) {
            return all.containsKey(key);
        }

        @Override
        public ByteBuffer find(String still, StageKey key) {
            ByteBuffer known = all.get(key);
            return known == null ? null : known.duplicate();
        }

        @Override
        public void keep(String still, StageKey key, Written written) {
            assertThat(still).isEqualTo("card");
            ByteArrayOutputStream bytes = new ByteArrayOutputStream();
            try {
                written.to(Channels.newChannel(bytes));
            } catch (IOException e) {
                throw new UncheckedIOException(e);
            }
            all.putIfAbsent(key, ByteBuffer.wrap(bytes.toByteArray()));
        }
    }

    private static Picture look(Card card, StageStore store, View view) {
        RefocusLine line = new RefocusLine(StageCache.keepingAll(), store);
        return line.render(new Viewer(), card, RECIPE, view, Progress.NONE);
    }

    @ParameterizedTest
    @ValueSource(ints = {300, 900})
    void whatIsOpenedAgainIsTheVerySameAndIsNotReadAgain(int side) {
        Bytes store = new Bytes();
        Card card = new Card(true);
        View view = View.of(FULL.fitting(side));
        Picture without = look(new Card(false), StageStore.NONE, view);
        Picture first = look(card, store, view);
        card.read = 0;
        Picture again = look(card, store, view);
        assertThat(card.read).isZero();
        assertThat(Picture.difference(first, again)).isNull();
        assertThat(Picture.difference(without, again)).isNull();
        // Something is blurred, so that the same is not just the photo.
        assertThat(Picture.difference(card.picture(view.size()), again)).isNotNull();
    }

    @Test
    void partsAndFramesAreLookedAtInPassing() {
        Bytes store = new Bytes();
        look(new Card(false), store, View.of(SEEN));
        Card card = new Card(true);
        View part = new View(FULL, new Region(40, 30, 100, 80));
        Picture first = look(card, store, part);
        assertThat(store.all).isEmpty();
        // What was looked at in passing is kept as soon as it is made ready.
        RefocusLine line = new RefocusLine(StageCache.keepingAll(), store);
        line.render(new Viewer(), card, RECIPE, part, Progress.NONE);
        line.prepare(card, RECIPE, FULL, Progress.NONE);
        card.read = 0;
        assertThat(Picture.difference(first, look(card, store, part))).isNull();
        assertThat(card.read).isZero();
    }

    @Test
    void aDeliveryUsesWhatIsKeptAndKeepsNothing() {
        Bytes store = new Bytes();
        Card card = new Card(true);
        List<Picture> parts = new ArrayList<>();
        RefocusLine.renderParts(card, RECIPE, FULL, store, Progress.NONE, (part, picture) -> parts.add(picture));
        assertThat(store.all).isEmpty();
        new RefocusLine(StageCache.keepingAll(), store).prepare(card, RECIPE, FULL, Progress.NONE);
        card.read = 0;
        RefocusLine.renderParts(card, RECIPE, FULL, store, Progress.NONE, (part, picture) -> parts.add(picture));
        assertThat(card.read).isZero();
        assertThat(parts).hasSize(2);
        assertThat(Picture.difference(parts.get(0), parts.get(1))).isNull();
    }

    /** Values that are few, as of a file of 8 bits, of 16, and more; and one that equals another, but has other bits. */
    @ParameterizedTest
    @CsvSource({"200, 1", "255, 1", "256, 2", "65535, 2", "65536, 4"})
    void samplesAreReadAsTheyWere(int values, int bytes) throws IOException {
        float[] samples = new float[600_000];
        for (int i = 0; i < samples.length; i++) {
            samples[i] = (i % values) * 0.37f - 5;
        }
        samples[0] = -0f;
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        PackedSamples.write(samples, Channels.newChannel(out));
        PackedSamples.write(new float[] {1, 2}, Channels.newChannel(out));
        assertThat(out.size()).isBetween(bytes * samples.length, bytes * samples.length + 4 * 65_600);
        ByteBuffer in = ByteBuffer.wrap(out.toByteArray()).order(PackedSamples.ORDER);
        float[] read = new float[samples.length];
        PackedSamples.read(in, read);
        assertThat(Arrays.mismatch(samples, read)).isNegative();
        float[] next = new float[2];
        PackedSamples.read(in, next);
        assertThat(next).containsExactly(1, 2);
    }
}
