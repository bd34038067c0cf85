package app.yubble.server.shoot;

import app.yubble.core.clip.Moment;
import app.yubble.core.depth.DepthEdges;
import app.yubble.core.depth.DepthEstimate;
import app.yubble.core.keep.SceneSource;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Resample;
import app.yubble.core.raster.Size;
import app.yubble.core.recipe.DepthChoice;
import app.yubble.core.touchup.KeptAt;
import app.yubble.media.clip.ClipScan;
import app.yubble.media.clip.ClipSheet;
import app.yubble.media.clip.DepthPack;
import app.yubble.media.depthfile.MaskFileReader;
import app.yubble.media.picture.PictureReader;
import app.yubble.server.problem.ConflictException;
import app.yubble.server.problem.NotFoundException;
import app.yubble.server.storage.FileStore;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import org.jspecify.annotations.Nullable;

/** A clip for the refocus line: small sizes from the small file, large ones from the file itself. */
final class ClipMaterial implements ShotMaterial {
    /** Frames around one that was estimated alone for which its depth stands. */
    private static final int NEAR = 15;
    /** Microseconds of a second. */
    private static final double MICROS = 1e6;

    private final Shot shot;
    private final Map<DepthChoice.Source, DepthIndex> maps = new EnumMap<>(DepthChoice.Source.class);
    private final ClipFiles clips;
    private final ClipSheet sheet;
    private final FileStore files;
    private final PictureReader reader;
    private final FramesWanted wanted;
    private final SubjectMasks kept;
    /** What was known when this material was first asked; a render does not see it change. */
    private final Map<List<KeptAt>, Optional<SubjectMasks.Known>> known = new ConcurrentHashMap<>();

    /** @param depths names of the indices of its depth */
    ClipMaterial(
            Shot shot,
            Map<DepthChoice.Source, String> depths,
            ClipFiles clips,
            FileStore files,
            PictureReader reader,
            FramesWanted wanted,
            SubjectMasks kept) {
        this.kept = kept;
        this.wanted = wanted;
        this.shot = shot;
        this.clips = clips;
        this.files = files;
        this.reader = reader;
        sheet = clips.sheet(shot);
        depths.forEach((source, hash) -> maps.put(source, clips.index(hash)));
    }

    @Override
    public List<Moment> moments() {
        return sheet.moments();
    }

    @Override
    public ShotStill at(Moment moment) {
        if (moment.frame() >= sheet.frames() || !sheet.moment(moment.frame()).equals(moment)) {
            throw new IllegalArgumentException("the clip has no " + moment);
        }
        return frame(moment.frame());
    }

    @Override
    public ShotStill frame(int number) {
        if (number < 0 || number >= sheet.frames()) {
            throw new NotFoundException("moment");
        }
        return new Frame(number);
    }

    @Override
    public @Nullable String knownDepth(int frame, DepthChoice.Source source) {
        DepthIndex index = maps.get(source);
        Place place = index == null ? null : new Frame(frame).place(index);
        return place == null ? null : place.pack() + "#" + place.frame();
    }

    @Override
    public DepthChoice.Source usualSource() {
        return maps.containsKey(DepthChoice.Source.FILE) ? DepthChoice.Source.FILE : DepthChoice.Source.ESTIMATED;
    }

    /** Where the depth of a frame lies. */
    private record Place(String pack, int frame) {}

    private final class Frame implements ShotStill {
        private final int number;

        Frame(int number) {
            this.number = number;
        }

        @Override
        public Moment moment() {
            return sheet.moment(number);
        }

        @Override
        public String id() {
            return shot.contentHash() + "#" + number;
        }

        @Override
        public String depthId(DepthChoice.Source source) {
            Place place = require(source);
            return place.pack() + "#" + place.frame();
        }

        @Override
        public DepthEdges.Detail detail() {
            DepthIndex index = maps.get(DepthChoice.Source.ESTIMATED);
            boolean settled = index != null && index.settled().containsKey(number / DepthPack.FRAMES);
            return settled ? DepthEdges.Detail.STEADY : DepthEdges.Detail.FINE;
        }

        @Override
        public Size size() {
            return sheet.info().size();
        }

        @Override
        public Size kept(Size wanted) {
            return size().fitting(wanted.longSide() <= ClipScan.PROXY_SIDE ? ClipScan.PROXY_SIDE : Integer.MAX_VALUE);
        }

        @Override
        public Picture picture(Size size) {
            Picture picture = size.longSide() <= ClipScan.PROXY_SIDE
                    ? clips.smallFrame(shot, number)
                    : clips.original(shot).frame(number);
            return Resample.toSize(picture, size);
        }

        @Override
        public ShotStill at(double seconds) {
            int frame = sheet.frameAt(Math.round(seconds * MICROS));
            return frame == number ? this : new Frame(frame);
        }

        @Override
        public DepthEstimate depth(DepthChoice.Source source) {
            Place place = require(source);
            DepthEstimate found = clips.pack(place.pack()).get(place.frame());
            if (found == null) {
                throw new IllegalStateException("depth of frame " + place.frame() + " is missing from its pack");
            }
            return found;
        }

        @Override
        public @Nullable Plane clearMatte() {
            DepthIndex index = maps.get(DepthChoice.Source.ESTIMATED);
            Place place = index == null ? null : place(index);
            return place == null ? null : depth(DepthChoice.Source.ESTIMATED).clearMatte();
        }

        @Override
        public Plane mask(String file) {
            try {
                return new MaskFileReader(reader).read(files.bytes(file), size());
            } catch (IOException fault) {
                throw new UncheckedIOException("A stored file cannot be read: " + fault.getMessage(), fault);
            }
        }

        @Override
        public @Nullable String keptId(List<KeptAt> said) {
            return known(said).map(each -> each.name() + "#" + number).orElse(null);
        }

        @Override
        public Plane kept(List<KeptAt> said) {
            Plane mask = known(said).orElseThrow().at().apply(number);
            // Beyond a cut it is not looked for.
            return mask == null ? new Plane(size().fitting(SceneSource.SIDE)) : mask;
        }

        private Optional<SubjectMasks.Known> known(List<KeptAt> said) {
            return said.isEmpty()
                    ? Optional.empty()
                    : known.computeIfAbsent(said, each -> Optional.ofNullable(kept.known(shot, each)));
        }

        private Place require(DepthChoice.Source source) {
            DepthIndex index = maps.get(source);
            if (index == null) {
                throw new NotFoundException("depth map");
            }
            Place place = place(index);
            if (place == null) {
                wanted.want(shot.id(), number);
                throw new ConflictException("The depth of this moment is not there yet.");
            }
            return place;
        }

        private @Nullable Place place(DepthIndex index) {
            String pack = index.settled().get(number / DepthPack.FRAMES);
            if (pack != null) {
                return new Place(pack, number);
            }
            Place best = null;
            for (int frame = Math.max(0, number - NEAR); frame <= number + NEAR; frame++) {
                String first = index.first().get(frame / DepthPack.FRAMES);
                boolean nearer = best == null || Math.abs(frame - number) < Math.abs(best.frame() - number);
                if (first != null && nearer && clips.pack(first).containsKey(frame)) {
                    best = new Place(first, frame);
                }
            }
            return best;
        }
    }
}
