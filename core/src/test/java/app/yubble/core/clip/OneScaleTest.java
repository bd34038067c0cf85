package app.yubble.core.clip;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Size;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;

class OneScaleTest {
    private static final Size SIZE = new Size(40, 30);

    /** The same scene on another scale; a part of it has really moved. */
    private static Plane scene(double factor, double offset, boolean moved) {
        Plane out = new Plane(SIZE);
        Random random = new Random(3);
        for (int i = 0; i < out.samples().length; i++) {
            double nearness = random.nextDouble();
            boolean thing = i % SIZE.width() < 6;
            out.samples()[i] = (float) (factor * (thing && moved ? 0.9 : nearness) + offset);
        }
        return out;
    }

    @Test
    void mapsOnDifferentScalesComeToOneAlsoWhereSomethingMoves() {
        double[][] scales = {{1, 0}, {0.7, 0.2}, {0.9, 0.05}, {0.6, 0.3}, {0.85, 0.1}};
        List<Plane> maps = new ArrayList<>();
        for (int i = 0; i < scales.length; i++) {
            maps.add(scene(scales[i][0], scales[i][1], i % 2 == 1));
        }
        OneScale one = new OneScale();
        Plane agrees = Plane.filled(SIZE, 1);
        for (int i = 1; i < maps.size(); i++) {
            one.add(OneScale.Pair.of(maps.get(i - 1), maps.get(i), agrees));
        }
        List<OneScale.Scale> solved = one.solved();
        int place = 20;
        float first = solved.get(0).of(maps.get(0)).samples()[place];
        for (int i = 1; i < maps.size(); i++) {
            // As they come they differ by up to 0.3; factors are drawn to 1 a little, so they do not meet exactly.
            assertThat(solved.get(i).of(maps.get(i)).samples()[place]).isCloseTo(first, within(0.05f));
        }
        assertThat(solved.stream().mapToDouble(OneScale.Scale::factor).average().orElse(0))
                .isCloseTo(1, within(1e-6));
    }

    @Test
    void mapsThatNothingJoinsKeepTheirScale() {
        OneScale one = new OneScale();
        one.add(OneScale.Pair.of(scene(1, 0, false), scene(0.5, 0.5, false), new Plane(SIZE)));
        assertThat(one.solved()).allSatisfy(each -> assertThat(each.factor()).isCloseTo(1, within(1e-6)));
    }
}
