package app.yubble.core.keep;

import app.yubble.core.clip.FlowFinder;
import app.yubble.core.keep.SceneSource.Scene;
import app.yubble.core.pickout.ObjectCut;
import app.yubble.core.raster.BoxMean;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Progress;
import app.yubble.core.raster.Size;
import app.yubble.core.touchup.KeptAt;
import app.yubble.core.touchup.PickOut;
import app.yubble.core.touchup.PickingOut;
import app.yubble.core.touchup.Stroke;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.function.IntFunction;
import java.util.function.ToIntFunction;
import org.jspecify.annotations.Nullable;

/** Keeps a subject through a clip as it was said, one thing after the other. */
public final class Keeping {
    /** Pixels to either side of a carried mask's border in which marks may move it. */
    private static final int BORDER = 6;
    /** Of the longer side: how far around them marks may change what was carried. */
    private static final double AROUND_MARKS = 0.12;
    /** Share of a window that counts as none and as all of it. */
    private static final float NONE = 0.01f;
    /** What having been carried says for the object, in logarithms of odds. */
    private static final float CARRIED = 1;

    private final FlowFinder flow;

    public Keeping(FlowFinder flow) {
        this.flow = flow;
    }

    /**
     * A clip.
     *
     * @param cuts frames that are the first after a cut, rising
     * @param frame at which something was said
     */
    public record Clip(SceneSource scenes, List<Integer> cuts, ToIntFunction<KeptAt> frame) {}

    /**
     * The masks after the last thing that was said.
     *
     * @param before what they were after all that was said before; null at the first
     */
    private KeptMasks after(Clip clip, List<KeptAt> said, @Nullable KeptMasks before, Progress progress) {
        KeptAt last = said.get(said.size() - 1);
        int frame = clip.frame().applyAsInt(last);
        KeptMasks out = before == null ? new KeptMasks(clip.scenes().size()) : new KeptMasks(before);
        List<Keeper.Seed> others = new ArrayList<>();
        for (KeptAt each : said.subList(0, said.size() - 1)) {
            int other = clip.frame().applyAsInt(each);
            Plane mask = out.at(other);
            if (other != frame && mask != null) {
                others.add(new Keeper.Seed(other, mask));
            }
        }
        boolean painted = said.get(0).by() == KeptAt.By.PAINTED;
        Plane mask = painted
                ? painted(last.pickOut(), out.at(frame), clip.scenes().size())
                : pointedOut(clip.scenes(), frame, last, out.at(frame));
        new Keeper(flow, painted)
                .keep(clip.scenes(), clip.cuts(), others, new Keeper.Seed(frame, mask), progress, out::put);
        return out;
    }

    /**
     * The masks after all that was said.
     *
     * @param made what is there already of the masks after so much of it; asked for from all but the last downwards
     */
    public KeptMasks all(Clip clip, List<KeptAt> said, IntFunction<@Nullable KeptMasks> made, Progress progress) {
        int known = said.size() - 1;
        KeptMasks out = null;
        while (known > 0 && out == null) {
            out = made.apply(known);
            known -= out == null ? 1 : 0;
        }
        double each = 1.0 / (said.size() - known);
        for (int i = known; i < said.size(); i++) {
            Progress own = progress.part((i - known) * each, (i - known + 1) * each);
            out = after(clip, said.subList(0, i + 1), out, own);
        }
        return Objects.requireNonNull(out, "nothing was said of the subject");
    }

    private Plane pointedOut(SceneSource scenes, int frame, KeptAt said, @Nullable Plane carried) {
        Scene[] found = new Scene[1];
        scenes.each(frame, frame + 1, (number, scene) -> found[0] = scene);
        Scene scene = found[0];
        Size size = scene.picture().size();
        return switch (said.by()) {
            case BOX -> ObjectCut.of(scene.picture(), scene.nearness(), PickingOut.hints(said.pickOut(), size));
            case PAINTED -> painted(said.pickOut(), carried, size);
            case CARRIED -> putRight(scene, said, carried == null ? new Plane(size) : carried);
            case CLICK -> {
                Stroke first = said.pickOut().marks().get(0);
                Plane clicked = Pointed.at(scene, first.x(0), first.y(0));
                yield said.pickOut().marks().size() == 1 ? clicked : putRight(scene, said, clicked);
            }
        };
    }

    private static Plane painted(PickOut pickOut, @Nullable Plane carried, Size size) {
        byte[] marks = PickingOut.hints(pickOut, size);
        Plane out = new Plane(size);
        for (int i = 0; i < marks.length; i++) {
            float before = carried == null ? 0 : carried.samples()[i];
            out.samples()[i] = marks[i] == ObjectCut.KEEP ? 1 : marks[i] == ObjectCut.DROP ? 0 : before;
        }
        return out;
    }

    /** Parted anew near marks and at its border. */
    private static Plane putRight(Scene scene, KeptAt said, Plane carried) {
        Size size = carried.size();
        byte[] marks = PickingOut.hints(said.pickOut(), size);
        Plane marked = new Plane(size);
        for (int i = 0; i < marks.length; i++) {
            marked.samples()[i] = marks[i] == ObjectCut.OPEN ? 0 : 1;
        }
        Plane near = BoxMean.of(marked, (int) Math.ceil(AROUND_MARKS * size.longSide()));
        Plane share = BoxMean.of(carried, BORDER);
        byte[] hints = new byte[marks.length];
        float[] lean = new float[marks.length];
        for (int i = 0; i < marks.length; i++) {
            float part = share.samples()[i];
            boolean decided = near.samples()[i] == 0 && (part < NONE || part > 1 - NONE);
            hints[i] = marks[i] != ObjectCut.OPEN || !decided
                    ? marks[i]
                    : part > 1 - NONE ? ObjectCut.KEEP : ObjectCut.OUTSIDE;
            lean[i] = CARRIED * (2 * carried.samples()[i] - 1);
        }
        return ObjectCut.of(scene.picture(), scene.nearness(), hints, new ObjectCut.Before(lean, new float[3][0]));
    }
}
