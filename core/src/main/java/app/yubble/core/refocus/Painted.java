package app.yubble.core.refocus;

import app.yubble.core.raster.Region;
import app.yubble.core.touchup.Mask;
import app.yubble.core.touchup.Touchup;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** A touch-up and what it paints. */
record Painted(Touchup touchup, Mask mask) {
    /** Whether two act alike wherever both are painted. */
    @FunctionalInterface
    interface Alike {
        boolean test(Touchup a, Touchup b);
    }

    /** Around all where two lists of touch-ups that act one after the other may act differently; null for nowhere. */
    static @Nullable Region difference(List<Painted> before, List<Painted> now, Alike alike) {
        Region changed = null;
        for (int i = 0; i < Math.max(before.size(), now.size()); i++) {
            Painted old = i < before.size() ? before.get(i) : null;
            Painted own = i < now.size() ? now.get(i) : null;
            if (old != null && own != null && alike.test(old.touchup, own.touchup)) {
                changed = Region.around(changed, Mask.difference(old.mask, own.mask));
            } else {
                changed = Region.around(changed, old == null ? null : old.mask.box());
                changed = Region.around(changed, own == null ? null : own.mask.box());
            }
        }
        return changed;
    }

    static long bytes(List<Painted> all) {
        return all.stream().mapToLong(each -> each.mask.bytes()).sum();
    }
}
