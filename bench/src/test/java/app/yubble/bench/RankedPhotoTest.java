package app.yubble.bench;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import app.yubble.core.raster.Plane;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class RankedPhotoTest {
    private static List<RankedPhoto> photos;

    @BeforeAll
    static void read() throws IOException {
        photos = RankedPhoto.read(Path.of("pairs/ranks.json"));
    }

    @Test
    void everyPhotoIsThereOnceWithPointsInsideThatSaySomething() {
        assertThat(photos).hasSizeGreaterThan(80);
        assertThat(photos)
                .extracting(RankedPhoto::sha256)
                .doesNotHaveDuplicates()
                .allMatch(each -> each.matches("[0-9a-f]{64}"));
        for (RankedPhoto photo : photos) {
            assertThat(photo.file()).startsWith("/usr/");
            assertThat(photo.pairs()).as(photo.file()).hasSizeGreaterThan(10);
            for (RankedPhoto.Point point : photo.points()) {
                assertThat(point.x()).as(point.what()).isBetween(0.0, 1.0);
                assertThat(point.y()).as(point.what()).isBetween(0.0, 1.0);
            }
        }
    }

    @Test
    void aThirdIsKeptApart() {
        double apart = photos.stream().filter(RankedPhoto::isApart).count();
        assertThat(apart / photos.size()).isCloseTo(1 / 3.0, within(0.05));
    }

    @Test
    void aMapIsRightWhereTheNearerPointIsNearer() {
        RankedPhoto.Pair pair =
                new RankedPhoto.Pair(new RankedPhoto.Point(0.1, 0.5, 1, ""), new RankedPhoto.Point(0.9, 0.5, 2, ""));
        Plane map = new Plane(10, 2);
        for (int i = 0; i < 20; i++) {
            map.samples()[i] = i % 10 / 10f;
        }
        assertThat(PairsCard.Ordered.of(map).has(pair)).isFalse();
        assertThat(PairsCard.Ordered.of(map).has(new RankedPhoto.Pair(pair.far(), pair.near())))
                .isTrue();
        assertThat(PairsCard.Ordered.of(Plane.filled(map.size(), 0.5f)).has(pair))
                .as("flat")
                .isFalse();
    }

    @Test
    void anotherFileOfTheNameIsNotThePhoto(@TempDir Path root) throws IOException {
        RankedPhoto photo = photos.get(0);
        assertThat(photo.isIn(root)).isFalse();
        Files.createDirectories(photo.in(root).getParent());
        Files.writeString(photo.in(root), "something else");
        assertThat(photo.isIn(root)).isFalse();
    }
}
