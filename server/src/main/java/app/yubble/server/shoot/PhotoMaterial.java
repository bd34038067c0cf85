package app.yubble.server.shoot;

import app.yubble.core.clip.Moment;
import app.yubble.core.depth.DepthEstimate;
import app.yubble.core.depth.Kin;
import app.yubble.core.lens.CutLight;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Resample;
import app.yubble.core.raster.Size;
import app.yubble.core.recipe.DepthChoice;
import app.yubble.core.refocus.Photo;
import app.yubble.core.subject.Subject;
import app.yubble.media.depthfile.DepthFileReader;
import app.yubble.media.depthfile.MaskFileReader;
import app.yubble.media.picture.PictureReader;
import app.yubble.server.problem.NotFoundException;
import app.yubble.server.storage.FileStore;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/** A photo for the refocus line: small sizes from the reduced picture, large ones from the file itself. */
final class PhotoMaterial implements ShotMaterial, ShotStill, Photo {
    private final Shot shot;
    private final Map<DepthChoice.Source, DepthMap> maps = new EnumMap<>(DepthChoice.Source.class);
    private final FileStore files;
    private final PictureReader reader;

    PhotoMaterial(Shot shot, List<DepthMap> depthMaps, FileStore files, PictureReader reader) {
        this.shot = shot;
        this.files = files;
        this.reader = reader;
        depthMaps.forEach(map -> maps.put(map.source(), map));
    }

    @Override
    public PhotoMaterial at(Moment moment) {
        Photo.super.at(moment);
        return this;
    }

    @Override
    public PhotoMaterial frame(int number) {
        if (number != 0) {
            throw new NotFoundException("moment");
        }
        return this;
    }

    @Override
    public @Nullable String knownDepth(int frame, DepthChoice.Source source) {
        return maps.containsKey(source) ? depthId(source) : null;
    }

    @Override
    public Moment moment() {
        return Moment.ONLY;
    }

    @Override
    public String id() {
        return shot.contentHash();
    }

    @Override
    public String depthId(DepthChoice.Source source) {
        DepthMap.Content content = map(source).content();
        return content.contentHash() + content.matteHash() + kinHash(content);
    }

    /** What places are like only the estimate knows, and that for every other map too. */
    private @Nullable String kinHash(DepthMap.Content content) {
        DepthMap estimated = maps.get(DepthChoice.Source.ESTIMATED);
        return content.kinHash() == null && estimated != null
                ? estimated.content().kinHash()
                : content.kinHash();
    }

    @Override
    public Size size() {
        return shot.size();
    }

    @Override
    public Size kept(Size wanted) {
        return isReduced(wanted) ? size().fitting(Shots.PROXY_SIDE) : size();
    }

    @Override
    public boolean isStored() {
        return true;
    }

    private boolean isReduced(Size wanted) {
        return shot.proxyHash() != null && wanted.longSide() <= Shots.PROXY_SIDE;
    }

    @Override
    public Picture picture(Size size) {
        String proxy = isReduced(size) ? shot.proxyHash() : null;
        return Resample.toSize(
                reader.read(bytes(proxy == null ? shot.contentHash() : proxy)).picture(), size);
    }

    @Override
    public boolean handsOverPictures() {
        return true;
    }

    @Override
    public DepthEstimate depth(DepthChoice.Source source) {
        DepthMap.Content content = map(source).content();
        String matte = content.matteHash();
        Double confidence = content.confidence();
        String kin = kinHash(content);
        return new DepthEstimate(
                plane(content.contentHash()),
                matte == null || confidence == null ? null : new Subject(plane(matte), confidence),
                content.sureHash() == null ? null : plane(content.sureHash()),
                kin == null ? null : new Kin(new DepthFileReader(reader).readFrame(bytes(kin), Kin.SHAPE)));
    }

    @Override
    public @Nullable Plane clearMatte() {
        return maps.containsKey(DepthChoice.Source.ESTIMATED)
                ? depth(DepthChoice.Source.ESTIMATED).clearMatte()
                : null;
    }

    @Override
    public DepthChoice.Source usualSource() {
        return Stream.of(DepthChoice.Source.FILE, DepthChoice.Source.CAMERA)
                .filter(maps::containsKey)
                .findFirst()
                .orElse(DepthChoice.Source.ESTIMATED);
    }

    /** Light that was cut off as it is stored: a smaller plane in [0,1]. */
    static Plane stored(Plane cutLight, Size size) {
        return scaled(Resample.toSize(cutLight, size), 1 / CutLight.BRIGHTEST);
    }

    private static Plane scaled(Plane plane, float factor) {
        Plane out = new Plane(plane.size());
        for (int i = 0; i < plane.samples().length; i++) {
            out.samples()[i] = plane.samples()[i] * factor;
        }
        return out;
    }

    @Override
    public boolean knowsCutLight() {
        return shot.cutLightHash() != null;
    }

    @Override
    public Plane cutLight(Size size) {
        String hash = Objects.requireNonNull(shot.cutLightHash());
        Plane found = new MaskFileReader(reader).read(bytes(hash), shot.size());
        return scaled(Resample.toSize(found, size), CutLight.BRIGHTEST);
    }

    @Override
    public Plane mask(String file) {
        return new MaskFileReader(reader).read(bytes(file), shot.size());
    }

    private Plane plane(String hash) {
        return new DepthFileReader(reader).read(bytes(hash), shot.size());
    }

    private DepthMap map(DepthChoice.Source source) {
        DepthMap map = maps.get(source);
        if (map == null) {
            throw new NotFoundException("depth map");
        }
        return map;
    }

    private byte[] bytes(String hash) {
        try {
            return files.bytes(hash);
        } catch (IOException e) {
            throw new UncheckedIOException("A stored file cannot be read: " + e.getMessage(), e);
        }
    }
}
