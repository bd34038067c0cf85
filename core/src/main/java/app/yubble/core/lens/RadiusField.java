package app.yubble.core.lens;

import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Region;

/** Signed blur radii of all pixels, and what the lens knows of them before it draws. Parts may change. */
public final class RadiusField {
    // Pixels beside a change are cut at depth edges anew.
    private static final int BESIDE = 4;
    // What is hidden is filled from around, on cells of some pixels.
    private static final int AIR = 12;

    private final Plane radii;
    private final Reach reach;

    /** @param radii finite; whoever changes a part of them calls {@link #renew} */
    public RadiusField(Plane radii) {
        this.radii = radii;
        reach = new Reach(radii);
    }

    /** Whoever owns the field may change a part of them and then calls {@link #renew}. */
    public Plane radii() {
        return radii;
    }

    Reach reach() {
        return reach;
    }

    public void renew(Region part) {
        reach.renew(radii, part);
    }

    /** On which everything depends that is drawn: where it stays, a change in one place leaves distant ones as they are. */
    public float largest() {
        return reach.overall();
    }

    /** Where it can be seen that the radii of {@code part} are these and not others. */
    public Region seenFrom(Region part, Disc disc) {
        Region beside = part.grown(BESIDE, radii.size());
        double most = reach.within(beside) * new DiscShape(disc).most();
        Region drawn = beside.grown((int) Math.ceil(most) + AIR, radii.size());
        return reach.hasFront(drawn) ? drawn.grown((int) Math.ceil(most), radii.size()) : drawn;
    }
}
