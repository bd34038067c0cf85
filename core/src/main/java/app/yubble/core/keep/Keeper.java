package app.yubble.core.keep;

import app.yubble.core.clip.Cuts;
import app.yubble.core.clip.FlowFinder;
import app.yubble.core.keep.SceneSource.Scene;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Progress;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Objects;
import java.util.function.BiConsumer;
import java.util.stream.Stream;

/**
 * Carries a subject's mask through a clip from where it was given, forward and backward; a cut ends it. Between two frames at which it was
 * given it is carried from both, and each frame has it from the side on which less had to be
 * guessed.
 */
public final class Keeper {
    /** Frames that are held while a clip is gone through backwards. */
    private static final int HELD = 32;

    private final FlowFinder flow;
    private final boolean painted;

    /** @param painted masks lie on things and have no border of their own */
    public Keeper(FlowFinder flow, boolean painted) {
        this.flow = flow;
        this.painted = painted;
    }

    /**
     * A mask that is given.
     *
     * @param mask 1 on the subject, 0 elsewhere
     */
    public record Seed(int frame, Plane mask) {}

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
        Memory memory = Memory.NOTHING;
        for (Seed each : Stream.concat(others.stream(), Stream.of(seed)).toList()) {
            memory = memory.with(scene(source, each.frame()), each.mask());
        }
        double[] done = {0};
        Runnable told = () -> progress.at(Math.min(1, ++done[0] / Math.max(1, left + right)));
        to.accept(seed.frame(), seed.mask());
        if (before == null) {
            back(source, seed, first, memory, told, (frame, carry, mask) -> to.accept(frame, mask));
        } else {
            between(source, before, seed, memory, to, told);
        }
        if (after == null) {
            ahead(source, seed, end, memory, told, (frame, carry, mask) -> to.accept(frame, mask));
        } else {
            between(source, seed, after, memory, to, told);
        }
    }

    /** From both sides; each frame has it from the one that had to guess less until there. */
    private void between(
            SceneSource source, Seed before, Seed after, Memory memory, BiConsumer<Integer, Plane> to, Runnable told) {
        KeptMasks ahead = new KeptMasks(source.size());
        double[] guessed = new double[after.frame()];
        ahead(source, before, after.frame(), memory, told, (frame, carry, mask) -> {
            ahead.put(frame, mask);
            guessed[frame] = carry.guessed();
        });
        back(source, after, before.frame() + 1, memory, told, (frame, carry, mask) -> {
            Plane other = Objects.requireNonNull(ahead.at(frame));
            to.accept(frame, guessed[frame] <= carry.guessed() ? other : mask);
        });
    }

    /** Takes what was carried to a frame. */
    @FunctionalInterface
    private interface Taker {
        void take(int frame, Carried carried, Plane mask);
    }

    private void ahead(SceneSource source, Seed seed, int end, Memory memory, Runnable told, Taker to) {
        Carried carry = begun(source, seed, memory);
        source.each(seed.frame() + 1, end, (frame, scene) -> {
            to.take(frame, carry, carry.to(scene));
            told.run();
        });
    }

    /** Down to {@code first}. */
    private void back(SceneSource source, Seed seed, int first, Memory memory, Runnable told, Taker to) {
        if (first >= seed.frame()) {
            return;
        }
        Carried carry = begun(source, seed, memory);
        for (int until = seed.frame(); until > first; until -= HELD) {
            List<Scene> held = new ArrayList<>();
            int from = Math.max(first, until - HELD);
            source.each(from, until, (frame, scene) -> held.add(scene));
            for (int k = held.size() - 1; k >= 0; k--) {
                to.take(from + k, carry, carry.to(held.get(k)));
                told.run();
            }
        }
    }

    private Carried begun(SceneSource source, Seed seed, Memory memory) {
        Scene start = scene(source, seed.frame());
        return painted ? new Drift(flow, start, seed.mask()) : new Carry(flow, start, seed.mask(), memory);
    }

    private static Scene scene(SceneSource source, int frame) {
        Scene[] out = new Scene[1];
        source.each(frame, frame + 1, (number, scene) -> out[0] = scene);
        return out[0];
    }
}
