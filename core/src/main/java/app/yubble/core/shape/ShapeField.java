package app.yubble.core.shape;

import app.yubble.core.raster.Bands;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Region;
import app.yubble.core.raster.Size;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** Puts blur shapes into a defocus field. */
public final class ShapeField {
    private ShapeField() {}

    /**
     * Makes radii larger where shapes lie. What is out of focus already stays on its side of the band; what is sharp is blurred as what
     * lies behind, but by a shape that covers what is in front.
     *
     * @param radii the defocus field before shapes in {@code part}
     * @param nearness of every pixel
     */
    public static void widen(Plane radii, Region part, Plane nearness, List<BlurShape> shapes) {
        for (BlurShape each : shapes) {
            Outline outline = new Outline(each, radii.size());
            Region box = outline.box(radii.size());
            Region here = box == null ? null : box.meet(part);
            if (here != null && each.acts()) {
                widen(radii, here, nearness, each, outline);
            }
        }
    }

    private static void widen(Plane radii, Region part, Plane nearness, BlurShape shape, Outline outline) {
        float most = (float) shape.radius(radii.size());
        boolean front = shape.cover().covers() == Cover.Which.IN_FRONT;
        float[] to = radii.samples();
        float[] near = nearness.samples();
        Bands.ofRows(part.height(), (from, until) -> {
            for (int y = part.y() + from; y < part.y() + until; y++) {
                for (int x = part.x(), i = y * radii.width() + x; x < part.x() + part.width(); x++, i++) {
                    float covered = shape.cover().share(near[i]);
                    float radius = covered == 0 ? 0 : most * covered * (float) outline.share(x, y);
                    if (radius > Math.abs(to[i])) {
                        to[i] = to[i] < 0 || to[i] == 0 && front ? -radius : radius;
                    }
                }
            }
        });
    }

    /** Around all where two lists may act differently; null for nowhere. */
    public static @Nullable Region difference(List<BlurShape> before, List<BlurShape> now, Size size) {
        Region changed = null;
        for (int i = 0; i < Math.max(before.size(), now.size()); i++) {
            BlurShape old = i < before.size() ? before.get(i) : null;
            BlurShape own = i < now.size() ? now.get(i) : null;
            if (old == null || !old.equals(own)) {
                changed = Region.around(changed, old == null ? null : new Outline(old, size).box(size));
                changed = Region.around(changed, own == null ? null : new Outline(own, size).box(size));
            }
        }
        return changed;
    }
}
