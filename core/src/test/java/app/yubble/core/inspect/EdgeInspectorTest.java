package app.yubble.core.inspect;

import static org.assertj.core.api.Assertions.assertThat;

import app.yubble.core.focus.SharpBand;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Region;
import app.yubble.core.raster.Size;
import app.yubble.core.touchup.Canvas;
import app.yubble.core.touchup.Mask;
import app.yubble.core.touchup.Painting;
import app.yubble.core.touchup.Stroke;
import java.util.List;
import java.util.Random;
import java.util.function.IntToDoubleFunction;
import org.junit.jupiter.api.Test;

/** A blue square before a yellow ground, a thin black mast beside it. */
class EdgeInspectorTest {
    private static final Size SIZE = new Size(300, 200);

    private static boolean square(int i) {
        int x = i % SIZE.width();
        int y = i / SIZE.width();
        return x >= 60 && x < 160 && y >= 50 && y < 150;
    }

    private static boolean mast(int i) {
        int x = i % SIZE.width();
        int y = i / SIZE.width();
        return x >= 220 && x < 226 && y >= 20 && y < 180;
    }

    private static Picture picture() {
        Picture out = Picture.blank(SIZE);
        Random random = new Random(11);
        for (int i = 0; i < SIZE.pixels(); i++) {
            float grain = random.nextFloat() * 0.01f;
            out.red().samples()[i] = grain + (mast(i) ? 0.02f : square(i) ? 0.1f : 0.6f);
            out.green().samples()[i] = grain + (mast(i) ? 0.02f : square(i) ? 0.15f : 0.5f);
            out.blue().samples()[i] = grain + (mast(i) ? 0.02f : square(i) ? 0.5f : 0.1f);
        }
        return out;
    }

    private static Plane depth(IntToDoubleFunction nearness) {
        Plane out = new Plane(SIZE);
        for (int i = 0; i < out.samples().length; i++) {
            out.samples()[i] = (float) nearness.applyAsDouble(i);
        }
        return out;
    }

    private static double exact(int i) {
        return mast(i) ? 0.6 : square(i) ? 0.5 : 0.1;
    }

    private static List<Fault> faults(Plane nearness) {
        Plane field = new Plane(SIZE);
        for (int i = 0; i < field.samples().length; i++) {
            field.samples()[i] = 40 * (0.5f - nearness.samples()[i]);
        }
        return EdgeInspector.faults(picture(), nearness, field, null);
    }

    private static double far(int i, int x, int y) {
        return Math.hypot(i % SIZE.width() - x, i / SIZE.width() - y);
    }

    @Test
    void exactDepthHasNoFaults() {
        assertThat(faults(depth(EdgeInspectorTest::exact))).isEmpty();
    }

    @Test
    void aHoleAndAnIslandAreNamedAndTheMoreVisibleOneComesFirst() {
        List<Fault> found = faults(depth(i -> far(i, 110, 100) < 14 ? 0.1 : far(i, 30, 100) < 8 ? 0.3 : exact(i)));
        assertThat(found).extracting(Fault::kind).containsExactly(Fault.Kind.HOLE, Fault.Kind.ISLAND);
        assertThat(found.get(0).proposal().target()).isBetween(0.48, 0.52);
        assertThat(found.get(1).proposal().target()).isBetween(0.08, 0.12);
        assertThat(found.get(0).x() * SIZE.width()).isBetween(100.0, 120.0);
    }

    @Test
    void aMastThatIsLostForPartOfItsLengthIsFound() {
        List<Fault> found =
                faults(depth(i -> mast(i) && i / SIZE.width() > 60 && i / SIZE.width() < 120 ? 0.1 : exact(i)));
        assertThat(found).hasSize(1);
        assertThat(found.get(0).kind()).isEqualTo(Fault.Kind.THIN);
        assertThat(found.get(0).proposal().target()).isBetween(0.58, 0.62);
    }

    @Test
    void anEdgeThatRunsBesideTheOneInThePictureIsFoundAndItsProposalMendsIt() {
        Plane wrong = depth(i -> square(i) && i % SIZE.width() >= 145 ? 0.1 : exact(i));
        List<Fault> found = faults(wrong);
        assertThat(found).hasSize(1);

        Mask mask = Mask.empty(SIZE);
        for (Stroke stroke : found.get(0).proposal().strokes()) {
            mask = Painting.stroke(
                    mask,
                    stroke,
                    Canvas.of(picture(), wrong),
                    Region.all(picture().size()));
        }
        Painting.move(wrong, found.get(0).proposal(), mask, SharpBand.EVERYTHING);
        double left = 0;
        for (int i = 0; i < wrong.samples().length; i++) {
            left += Math.abs(wrong.samples()[i] - exact(i)) > 0.1 ? 1 : 0;
        }
        assertThat(left).isLessThan(15 * 100 * 0.15);
    }

    @Test
    void whereTheMatteIsUndecidedThePieceTakesTheDepthOfTheSideThatItLooksLike() {
        Plane matte = depth(i -> far(i, 150, 100) < 12 ? 0.5 : square(i) ? 1 : 0);
        Plane mixed = depth(i -> far(i, 150, 100) < 12 ? 0.3 : exact(i));
        Plane field = depth(i -> 40 * (0.5 - mixed.samples()[i]));
        List<Fault> found = EdgeInspector.faults(picture(), mixed, field, matte);
        assertThat(found).extracting(Fault::kind).contains(Fault.Kind.MATTE);
        Fault undecided = found.stream()
                .filter(each -> each.kind() == Fault.Kind.MATTE)
                .findFirst()
                .orElseThrow();
        assertThat(undecided.proposal().target()).isBetween(0.45, 0.5);
        // A matte that is soft only along its edge is as it should be.
        Plane soft = depth(i -> i % SIZE.width() == 59 ? 0.5 : square(i) ? 1 : 0);
        assertThat(EdgeInspector.faults(picture(), depth(EdgeInspectorTest::exact), field, soft))
                .isEmpty();
    }
}
