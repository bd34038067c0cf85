package app.yubble.core.keep;

import app.yubble.core.clip.Cuts;
import app.yubble.core.clip.FlowFinder;
import app.yubble.core.keep.SceneSource.Scene;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Progress;
import app.yubble.core.raster.Size;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.BiConsumer;

/**
 * Carries a subject's mask through a clip from where it was given, forward and backward; a cut ends it. Between two frames at which it was
 * given it is carried from both, and each frame has it from the side on which less had to be guessed.
 */
public final class Keeper {
    /** Frames that are held while a clip is gone through backwards. */
    private static final int HELD = 32;

    private final FlowFinder flow;

    public Keeper(FlowFinder flow) {
        this.flow = flow;
    }

    /**
     * A mask that is given.
     *
     * @param mask 1 on the subject, 0 elsewhere
     */
    public record Seed(int frame, Plane mask) {}

    /** What was carried to a frame from before it. */
    private record Ahead(BitSet mask, double doubt) {}

    /**
     * Carries a mask to both sides as far as the next one that was given before, or to the ends of its shot.
     *
     * @param cuts frames that are the first after a cut, rising
     * @param others that were given before, of other frames
     * @param to takes the mask of every frame that is changed by it, in no order
     */
    public void keep(
            SceneSource source,
            List<Integer> cuts,
            List<Seed> others,
            Seed seed,
            Progress progress,
            BiConsumer<Integer, Plane> to) {
        int first = Cuts.from(cuts, seed.frame());
        int end = Cuts.end(cuts, seed.frame(), source.frames());
        Seed before = others.stream()
                .filter(each -> each.frame() >= first && each.frame() < seed.frame())
                .max(Comparator.comparingInt(Seed::frame))
                .orElse(null);
        Seed after = others.stream()
                .filter(each -> each.frame() > seed.frame() && each.frame() < end)
                .min(Comparator.comparingInt(Seed::frame))
                .orElse(null);
        double left = (before == null ? 1 : 2) * (seed.frame() - (before == null ? first : before.frame()));
        double right = (after == null ? 1 : 2) * ((after == null ? end : after.frame()) - seed.frame());
        double[] done = {0};
        Runnable told = () -> progress.at(Math.min(1, ++done[0] / Math.max(1, left + right)));
        to.accept(seed.frame(), seed.mask());
        if (before == null) {
            back(source, seed, first, Map.of(), to, told);
        } else {
            between(source, before, seed, to, told);
        }
        if (after == null) {
            ahead(source, seed, end, told, (frame, carry, mask) -> to.accept(frame, mask));
        } else {
            between(source, seed, after, to, told);
        }
    }

    private void between(SceneSource source, Seed before, Seed after, BiConsumer<Integer, Plane> to, Runnable told) {
        Map<Integer, Ahead> known = new HashMap<>();
        ahead(
                source,
                before,
                after.frame(),
                told,
                (frame, carry, mask) -> known.put(frame, new Ahead(bits(mask), carry.doubt())));
        back(source, after, before.frame() + 1, known, to, told);
    }

    /** Takes what was carried to a frame. */
    @FunctionalInterface
    private interface Carried {
        void take(int frame, Carry carry, Plane mask);
    }

    private void ahead(SceneSource source, Seed seed, int end, Runnable told, Carried to) {
        Carry carry = begun(source, seed);
        source.each(seed.frame() + 1, end, (frame, scene) -> {
            to.take(frame, carry, carry.to(scene));
            told.run();
        });
    }

    /** Down to {@code first}. */
    private void back(
            SceneSource source,
            Seed seed,
            int first,
            Map<Integer, Ahead> known,
            BiConsumer<Integer, Plane> to,
            Runnable told) {
        if (first >= seed.frame()) {
            return;
        }
        Carry carry = begun(source, seed);
        for (int until = seed.frame(); until > first; until -= HELD) {
            List<Scene> held = new ArrayList<>();
            int from = Math.max(first, until - HELD);
            source.each(from, until, (frame, scene) -> held.add(scene));
            for (int k = held.size() - 1; k >= 0; k--) {
                Plane mask = carry.to(held.get(k));
                Ahead other = known.get(from + k);
                boolean theirs = other != null && other.doubt() <= carry.doubt();
                to.accept(from + k, other != null && theirs ? plane(other.mask(), mask.size()) : mask);
                told.run();
            }
        }
    }

    private Carry begun(SceneSource source, Seed seed) {
        Scene[] start = new Scene[1];
        source.each(seed.frame(), seed.frame() + 1, (frame, scene) -> start[0] = scene);
        return new Carry(flow, start[0], seed.mask());
    }

    private static BitSet bits(Plane mask) {
        BitSet out = new BitSet(mask.samples().length);
        for (int i = 0; i < mask.samples().length; i++) {
            out.set(i, mask.samples()[i] > 0.5f);
        }
        return out;
    }

    private static Plane plane(BitSet bits, Size size) {
        Plane out = new Plane(size);
        for (int i = bits.nextSetBit(0); i >= 0; i = bits.nextSetBit(i + 1)) {
            out.samples()[i] = 1;
        }
        return out;
    }
}
