package app.yubble.core.ladder;

import app.yubble.core.depth.Kin;
import app.yubble.core.raster.BoxMedian;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Size;
import java.util.List;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;

/** What rungs stand on: what every pixel of a moment looks like, without what is thin on it, where it lies and how near the map says it is. */
public final class Footing {
    /** Longer side at which ladders are solved: the network's map is not finer. */
    public static final int SIDE = 240;

    /** In pixels to each side: letters on a sign and specks of light on a wall do not stand elsewhere than these. */
    private static final int THIN = 3;

    /** In what is read of a pixel, after its place (2): where nearness, colour (3) and kin begin. */
    static final int NEARNESS = 2;
    /** See {@link #NEARNESS}. */
    static final int COLOUR = 3;
    /** See {@link #NEARNESS}. */
    static final int KIN = 6;
    /** How many numbers are read of a pixel. */
    static final int PARTS = KIN + Kin.PARTS;

    private final Plane nearness;
    private final Plane[] colours = new Plane[3];
    private final List<Plane> kin;
    private final Likeness likeness;
    private final double side;

    /**
     * @param picture small, as {@code nearness}, which has no ladder yet
     * @param kin null when it is not known
     */
    public Footing(Plane nearness, Picture picture, @Nullable Kin kin) {
        this.nearness = nearness;
        side = nearness.size().longSide();
        likeness = new Likeness(nearness, picture);
        for (int c = 0; c < colours.length; c++) {
            colours[c] = BoxMedian.of(new Plane(nearness.width(), nearness.height(), likeness.colour(c)), THIN);
        }
        this.kin = kin == null
                ? List.of()
                : IntStream.range(0, Kin.PARTS)
                        .mapToObj(part -> kin.part(part, nearness.size()))
                        .toList();
    }

    public Size size() {
        return nearness.size();
    }

    public long bytes() {
        return (1 + 2L * colours.length + kin.size()) * nearness.bytes();
    }

    Likeness likeness() {
        return likeness;
    }

    Plane nearness() {
        return nearness;
    }

    /** The pixel that a rung stands on. */
    int under(Rung rung) {
        int x = Math.min(nearness.width() - 1, (int) (rung.x() * nearness.width()));
        int y = Math.min(nearness.height() - 1, (int) (rung.y() * nearness.height()));
        return y * nearness.width() + x;
    }

    boolean knowsKin() {
        return !kin.isEmpty();
    }

    /** What a pixel is like, for a {@link Metric}. */
    void read(int pixel, float[] to) {
        int width = nearness.width();
        to[0] = (float) ((pixel % width + 0.5) / side);
        to[1] = (float) ((pixel / width + 0.5) / side);
        to[NEARNESS] = nearness.samples()[pixel];
        for (int c = 0; c < colours.length; c++) {
            to[COLOUR + c] = colours[c].samples()[pixel];
        }
        for (int part = 0; part < kin.size(); part++) {
            to[KIN + part] = (float) (Kin.REACH * kin.get(part).samples()[pixel]);
        }
    }
}
