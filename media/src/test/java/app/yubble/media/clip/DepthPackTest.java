package app.yubble.media.clip;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import app.yubble.core.clip.PlaneStore;
import app.yubble.core.depth.DepthEstimate;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Size;
import app.yubble.core.subject.Subject;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.Map;
import java.util.Objects;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class DepthPackTest {
    private static final Size SIZE = new Size(480, 270);

    @TempDir
    Path folder;

    private static Plane slope(int seed) {
        Plane out = new Plane(SIZE);
        Random random = new Random(seed);
        double turn = random.nextDouble();
        for (int i = 0; i < out.samples().length; i++) {
            double x = (i % SIZE.width()) / 480.0;
            double y = (i / SIZE.width()) / 270.0;
            out.samples()[i] = (float) (0.5 + 0.5 * Math.sin(3 * x + turn) * Math.cos(2 * y));
        }
        return out;
    }

    private static DepthEstimate estimate(int seed) {
        return new DepthEstimate(slope(seed), new Subject(slope(seed + 100), 0.875));
    }

    @Test
    void depthOfAFrameComesBackSmallButTheSame() {
        DepthPack pack = DepthPack.ofEstimates();
        pack.add(7, estimate(1));
        pack.add(8, DepthEstimate.of(slope(2)));
        byte[] stored = pack.write();
        assertThat(stored.length / 2).as("bytes a frame").isLessThan(150_000);
        Map<Integer, DepthEstimate> read = DepthPack.read(stored);
        assertThat(read).containsOnlyKeys(7, 8);
        DepthEstimate first = Objects.requireNonNull(read.get(7));
        assertThat(first.nearness().size()).isEqualTo(new Size(256, 144));
        assertThat(first.nearness().at(128, 72)).isCloseTo(slope(1).at(240, 135), within(0.01f));
        Subject subject = Objects.requireNonNull(first.subject());
        assertThat(subject.confidence()).isEqualTo(0.875);
        assertThat(subject.matte().size()).isEqualTo(SIZE);
        assertThat(subject.matte().at(100, 50)).isCloseTo(slope(101).at(100, 50), within(0.003f));
        assertThat(Objects.requireNonNull(read.get(8)).subject()).isNull();
    }

    @Test
    void aReelStoresPacksAsTheyFillAndFindsFramesInThem() {
        Map<Integer, byte[]> stored = new HashMap<>();
        DepthReel reel = new DepthReel(
                new DepthReel.Store() {
                    @Override
                    public void put(int pack, byte[] content) {
                        stored.put(pack, content);
                    }

                    @Override
                    public byte[] get(int pack) {
                        return stored.get(pack);
                    }
                },
                DepthPack.FRAMES + 3,
                false);
        for (int frame = 0; frame < DepthPack.FRAMES + 2; frame++) {
            reel.add(frame, DepthEstimate.of(Plane.filled(new Size(4, 3), frame / 100f)));
        }
        assertThat(stored).as("the second is not full yet").containsOnlyKeys(0);
        assertThat(reel.at(DepthPack.FRAMES)).isNull();
        reel.add(DepthPack.FRAMES + 2, DepthEstimate.of(Plane.filled(new Size(4, 3), 0.5f)));
        assertThat(Objects.requireNonNull(reel.at(13)).nearness().at(1, 1)).isCloseTo(0.13f, within(2e-4f));
        assertThat(Objects.requireNonNull(reel.at(DepthPack.FRAMES + 2))
                        .nearness()
                        .at(1, 1))
                .isCloseTo(0.5f, within(2e-4f));
    }

    @Test
    void planesAreFoundAgainByWhoeverOpensTheFolderLaterAndHalfWrittenOnesAreNot() throws Exception {
        Path work = folder.resolve("work");
        try (PlaneFiles shelves = new PlaneFiles(work)) {
            PlaneStore maps = shelves.maps("maps", SIZE);
            maps.put(3, slope(3));
            maps.put(5, slope(5));
        }
        Path file = work.resolve("maps");
        try (var channel = Files.newByteChannel(file, java.nio.file.StandardOpenOption.WRITE)) {
            channel.truncate(Files.size(file) - 10);
        }
        PlaneFiles again = new PlaneFiles(work);
        PlaneStore maps = again.maps("maps", SIZE);
        assertThat(maps.has(3)).isTrue();
        assertThat(maps.has(4)).as("never put").isFalse();
        assertThat(maps.has(5)).as("cut off").isFalse();
        assertThat(maps.get(3).at(200, 100)).isCloseTo(slope(3).at(200, 100), within(5e-4f));
        assertThatThrownBy(() -> maps.get(5)).hasMessageContaining("no plane 5");
        again.remove();
        assertThat(work).doesNotExist();
    }
}
