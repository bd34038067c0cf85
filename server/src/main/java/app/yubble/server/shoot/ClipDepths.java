package app.yubble.server.shoot;

import app.yubble.core.depth.DepthEstimate;
import app.yubble.core.raster.Size;
import app.yubble.core.recipe.DepthChoice;
import app.yubble.core.subject.Quality;
import app.yubble.core.subject.Subject;
import app.yubble.media.clip.DepthPack;
import app.yubble.media.clip.DepthReel;
import java.util.Map;
import java.util.TreeMap;
import java.util.UUID;
import java.util.concurrent.CancellationException;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;

/** Takes the depth of a clip's frames as it comes and stores it. */
@Service
public class ClipDepths {
    /** Frames that were estimated alone are stored a few at a time. */
    private static final int FIRST_AT_ONCE = 4;

    private final DepthMaps maps;
    private final ClipFiles clips;

    ClipDepths(DepthMaps maps, ClipFiles clips) {
        this.maps = maps;
        this.clips = clips;
    }

    /** An estimate under way. */
    public final class Running implements DepthReel.Store {
        private final Shot shot;
        private final UUID run;
        private final String origin;
        private final Quality quality;
        private final DepthReel reel;
        private final Map<Integer, DepthPack> first = new TreeMap<>();
        private DepthIndex index = DepthIndex.NONE;
        private @Nullable Double confidence;
        private Size size = new Size(1, 1);
        private int unstored;
        private int lastPack;

        private Running(Shot shot, UUID run, String origin, Quality quality, int frames) {
            this.shot = shot;
            this.run = run;
            this.origin = origin;
            this.quality = quality;
            reel = new DepthReel(this, frames, true);
        }

        /** A frame that was estimated alone. The very first is stored at once, and so is one out of turn: somebody looks at it. */
        public void first(int frame, DepthEstimate estimate) {
            int number = frame / DepthPack.FRAMES;
            boolean fresh = first.isEmpty();
            first.computeIfAbsent(number, none -> DepthPack.ofEstimates()).add(frame, estimate);
            told(estimate);
            int behind = Math.min(lastPack, number);
            boolean inTurn = number == lastPack || number == lastPack + 1;
            lastPack = number;
            if (fresh || !inTurn || ++unstored >= FIRST_AT_ONCE) {
                unstored = 0;
                first.forEach((pack, content) -> index = index.withFirst(pack, clips.put(content.write())));
                first.keySet().removeIf(pack -> pack < behind);
                store();
            }
        }

        /** The next frame's own depth. */
        public void settled(int frame, DepthEstimate estimate) {
            told(estimate);
            reel.add(frame, estimate);
        }

        private void told(DepthEstimate estimate) {
            Subject subject = estimate.subject();
            confidence = subject == null ? null : subject.confidence();
            size = estimate.nearness().size();
        }

        @Override
        public void put(int pack, byte[] content) {
            index = index.withSettled(pack, clips.put(content));
            store();
        }

        @Override
        public byte @Nullable [] get(int pack) {
            return null;
        }

        private void store() {
            DepthMap.Content content = new DepthMap.Content(
                    origin, clips.put(index), size, null, confidence, null, null, quality, null, null);
            if (!maps.putOfClip(shot.id(), run, DepthChoice.Source.ESTIMATED, content)) {
                throw new CancellationException("no longer wanted");
            }
        }
    }

    /** A depth clip that comes in; its maps are in no map until all are there. */
    public final class Arriving implements DepthReel.Store {
        private final Shot shot;
        private final UUID run;
        private final DepthReel reel;
        private DepthIndex index = DepthIndex.NONE;
        private Size size = new Size(1, 1);

        private Arriving(Shot shot, UUID run, int frames) {
            this.shot = shot;
            this.run = run;
            reel = new DepthReel(this, frames, false);
        }

        public void add(int frame, DepthEstimate map) {
            size = map.nearness().size();
            reel.add(frame, map);
        }

        /** Stores all of it as the depth from a file. */
        public void finish(String name) {
            DepthMap.Content content =
                    new DepthMap.Content(name, clips.put(index), size, null, null, null, null, null, null, null);
            if (!maps.putOfClip(shot.id(), run, DepthChoice.Source.FILE, content)) {
                throw new CancellationException("no longer wanted");
            }
        }

        @Override
        public void put(int pack, byte[] content) {
            index = index.withSettled(pack, clips.put(content));
        }

        @Override
        public byte @Nullable [] get(int pack) {
            return null;
        }
    }

    public Arriving arrive(Shot shot, UUID run) {
        return new Arriving(shot, run, clips.sheet(shot).frames());
    }

    public Running begin(Shot shot, UUID run, String origin, Quality quality) {
        return new Running(shot, run, origin, quality, clips.sheet(shot).frames());
    }
}
