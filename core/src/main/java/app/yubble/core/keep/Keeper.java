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
     * Carries it.
     *
     * @param cuts frames that are the first after a cut, rising
     * @param seeds at least one, each of another frame
     * @param to takes the mask of every frame of the shots in which it was given, in no order
     */
    public void keep(
            SceneSource source,
            List<Integer> cuts,
            List<Seed> seeds,
            Progress progress,
            BiConsumer<Integer, Plane> to) {
        List<Seed> ordered =
                seeds.stream().sorted(Comparator.comparingInt(Seed::frame)).toList();
        double[] done = {0};
        Runnable told = () -> progress.at(Math.min(1, ++done[0] / (source.frames() * 2)));
        for (int i = 0; i < ordered.size(); i++) {
            Seed seed = ordered.get(i);
            int shot = Cuts.from(cuts, seed.frame());
            int end = Cuts.end(cuts, seed.frame(), source.frames());
            Seed before = i > 0 && Cuts.from(cuts, ordered.get(i - 1).frame()) == shot ? ordered.get(i - 1) : null;
            Seed after = i < ordered.size() - 1 && ordered.get(i + 1).frame() < end ? ordered.get(i + 1) : null;
            to.accept(seed.frame(), seed.mask());
            if (before == null) {
                back(source, seed, shot, Map.of(), to, told);
            }
            if (after == null) {
                ahead(source, seed, end, told, (frame, carry, mask) -> to.accept(frame, mask));
            } else {
                Map<Integer, Ahead> known = new HashMap<>();
                ahead(
                        source,
                        seed,
                        after.frame(),
                        told,
                        (frame, carry, mask) -> known.put(frame, new Ahead(bits(mask), carry.doubt())));
                back(source, after, seed.frame() + 1, known, to, told);
            }
        }
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
