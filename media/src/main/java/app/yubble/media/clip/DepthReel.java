package app.yubble.media.clip;

import app.yubble.core.depth.DepthEstimate;
import java.util.Map;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;

/** Depth of all frames of a clip, in packs of {@value DepthPack#FRAMES} frames that lie in a store. Used from one thread at a time. */
public final class DepthReel {
    /** Keeps packs by number: pack n holds the frames from n times {@value DepthPack#FRAMES} on. */
    public interface Store {
        void put(int pack, byte[] content);

        /** Null when there is none. */
        byte @Nullable [] get(int pack);
    }

    private final Store store;
    private final boolean estimates;
    private final TreeMap<Integer, DepthPack> open = new TreeMap<>();
    private final int frames;
    private int readPack = -1;
    private Map<Integer, DepthEstimate> read = Map.of();

    /** @param estimates whether maps are estimates, which are kept small */
    public DepthReel(Store store, int frames, boolean estimates) {
        this.store = store;
        this.frames = frames;
        this.estimates = estimates;
    }

    /** The next frame; a pack is stored when it is full. */
    public void add(int frame, DepthEstimate estimate) {
        int number = frame / DepthPack.FRAMES;
        DepthPack pack =
                open.computeIfAbsent(number, fresh -> estimates ? DepthPack.ofEstimates() : DepthPack.ofMaps());
        pack.add(frame, estimate);
        if (pack.count() == Math.min(DepthPack.FRAMES, frames - number * DepthPack.FRAMES)) {
            store.put(number, pack.write());
            open.remove(number);
        }
    }

    /** Depth of a frame; null when it is not there yet. */
    public @Nullable DepthEstimate at(int frame) {
        int number = frame / DepthPack.FRAMES;
        if (number != readPack) {
            byte[] content = store.get(number);
            if (content == null) {
                return null;
            }
            read = DepthPack.read(content);
            readPack = number;
        }
        return read.get(frame);
    }
}
