package app.yubble.core.refocus;

import app.yubble.core.depth.DepthEdges;
import app.yubble.core.depth.DepthEstimate;
import app.yubble.core.lens.CutLight;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Resample;
import app.yubble.core.raster.Size;
import app.yubble.core.recipe.DepthChoice;
import app.yubble.core.touchup.KeptAt;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * A photo in memory with one depth map, which is every source's. Its ids tell it from no other, so it needs a cache of its own.
 *
 * @param masks by the names under which touch-ups begin with them
 * @param kept masks of subjects that are kept, by what was said of them
 * @param detail how much work its edges are
 * @param pattern of its grain; each frame of a clip has its own
 * @param others stills of the clip, by their times
 */
public record HeldPhoto(
        Picture full,
        DepthEstimate map,
        Map<String, Plane> masks,
        Map<List<KeptAt>, Plane> kept,
        DepthEdges.Detail detail,
        int pattern,
        Map<Double, Still> others)
        implements Photo {
    public HeldPhoto {
        masks = Map.copyOf(masks);
        kept = Map.copyOf(kept);
        others = Map.copyOf(others);
    }

    /** A photo, or a frame of a clip whose other frames are not asked for. */
    public HeldPhoto(
            Picture full,
            DepthEstimate map,
            Map<String, Plane> masks,
            Map<List<KeptAt>, Plane> kept,
            DepthEdges.Detail detail,
            int pattern) {
        this(full, map, masks, kept, detail, pattern, Map.of());
    }

    public HeldPhoto(Picture full, DepthEstimate map, Map<String, Plane> masks) {
        this(full, map, masks, Map.of(), DepthEdges.Detail.FINE, 0);
    }

    public static HeldPhoto of(Picture full, Plane nearness) {
        return new HeldPhoto(full, DepthEstimate.of(nearness), Map.of());
    }

    @Override
    public String id() {
        return "photo " + pattern;
    }

    @Override
    public String depthId(DepthChoice.Source source) {
        return "depth " + pattern;
    }

    @Override
    public Still at(double seconds) {
        return others.getOrDefault(seconds, this);
    }

    @Override
    public Size size() {
        return full.size();
    }

    @Override
    public Picture picture(Size size) {
        return Resample.toSize(full, size);
    }

    @Override
    public DepthEstimate depth(DepthChoice.Source source) {
        return map;
    }

    @Override
    public boolean knowsCutLight() {
        return true;
    }

    @Override
    public Plane cutLight(Size size) {
        return Resample.toSize(CutLight.of(full), size);
    }

    @Override
    public @Nullable String keptId(List<KeptAt> said) {
        return kept.containsKey(said) ? KeptAt.key(said) : null;
    }

    @Override
    public Plane kept(List<KeptAt> said) {
        Plane mask = kept.get(said);
        return mask == null ? Photo.super.kept(said) : mask;
    }

    @Override
    public Plane mask(String file) {
        @Nullable Plane mask = masks.get(file);
        return mask == null ? Photo.super.mask(file) : mask;
    }
}
