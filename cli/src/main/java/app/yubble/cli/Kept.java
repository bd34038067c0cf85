package app.yubble.cli;

import app.yubble.core.depth.DepthEstimate;
import app.yubble.core.follow.Put;
import app.yubble.core.keep.Keeping;
import app.yubble.core.keep.KeptMasks;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Progress;
import app.yubble.core.recipe.Recipe;
import app.yubble.core.touchup.KeptAt;
import app.yubble.core.touchup.PickOut;
import app.yubble.core.touchup.Stroke;
import app.yubble.core.touchup.Touchup;
import app.yubble.media.clip.DepthReel;
import app.yubble.vision.InverseSearchFlow;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/** The subjects that a clip's recipe keeps. */
record Kept(Map<List<KeptAt>, KeptMasks> subjects) {
    static final Kept NOTHING = new Kept(Map.of());
    /** Width of what {@code --keep} surely lies on, of the longer side. */
    private static final double DOT = 0.012;

    /** What {@code --keep} keeps sharp. */
    static Touchup touchup(String text, ClipWork work) {
        Put put = TrackCommand.put(text, work, "--keep");
        Stroke mark = new Stroke(Stroke.Brush.of(DOT), (float) put.x(), (float) put.y(), 1);
        KeptAt said = new KeptAt(put.at(), KeptAt.By.CLICK, new PickOut(0, 0, 1, 1, List.of(mark)));
        return Touchup.of("keep", Touchup.Action.FOCUS, 1, 0).withStart(new Touchup.Start(null, null, List.of(said)));
    }

    /** What a recipe keeps, carried through the clip. */
    static Kept of(Recipe recipe, ClipWork work, DepthReel reel) {
        List<List<KeptAt>> all = recipe.touchups().stream()
                .filter(Touchup::acts)
                .map(each -> each.start().kept())
                .filter(each -> !each.isEmpty())
                .distinct()
                .toList();
        if (all.isEmpty()) {
            return NOTHING;
        }
        Keeping.Clip clip = work.smallFile()
                .keeping(
                        work.sheet().info().size(),
                        recipe.depth().withLadder(List.of()),
                        (frame, picture) -> ClipWork.still(picture, reel, frame, Map.of(), NOTHING, Map.of()),
                        frame -> matte(reel, frame));
        Keeping keeping = new Keeping(new InverseSearchFlow());
        Progress progress = work.told("keeping", 0, 1);
        Map<List<KeptAt>, KeptMasks> out = new LinkedHashMap<>();
        for (int i = 0; i < all.size(); i++) {
            double each = 1.0 / all.size();
            out.put(all.get(i), keeping.all(clip, all.get(i), none -> null, progress.part(i * each, (i + 1) * each)));
        }
        return new Kept(out);
    }

    private static @Nullable Plane matte(DepthReel reel, int frame) {
        DepthEstimate map = reel.at(frame);
        return map == null ? null : map.clearMatte();
    }

    /** Their masks at a frame. */
    Map<List<KeptAt>, Plane> at(int frame) {
        Map<List<KeptAt>, Plane> out = new HashMap<>();
        subjects.forEach((said, masks) -> {
            Plane mask = masks.at(frame);
            if (mask != null) {
                out.put(said, mask);
            }
        });
        return out;
    }
}
