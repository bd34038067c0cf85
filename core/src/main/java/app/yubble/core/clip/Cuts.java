package app.yubble.core.clip;

import app.yubble.core.raster.Plane;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * Finds cuts while the small pictures of a clip go by.
 *
 * <p>Between two frames a cut changes nearly all places at once, and far more than the frames around it change. So both are asked:
 * the mean change of lightness, which must be large, and how it compares with the largest of the {@value #AROUND} changes on either
 * side. A flash changes the picture twice; both changes stand beside each other and neither is a cut.
 */
public final class Cuts {
    /** Changes that a change is compared with, on either side. */
    private static final int AROUND = 4;

    /** Lightness, of 1. By eye on the demo clip and on clips with cuts. */
    private static final double LEAST_CHANGE = 0.05;

    /** By eye on the same: fast movement changes neighbouring frames alike. */
    private static final double LEAST_RATIO = 2.5;

    /**
     * The first frame of the shot that a frame belongs to.
     *
     * @param cuts as {@link #found}
     */
    public static int from(List<Integer> cuts, int frame) {
        return cuts.stream()
                .filter(cut -> cut <= frame)
                .mapToInt(cut -> cut)
                .max()
                .orElse(0);
    }

    /**
     * The first frame behind that shot.
     *
     * @param frames of the clip
     */
    public static int end(List<Integer> cuts, int frame, int frames) {
        return cuts.stream().filter(cut -> cut > frame).findFirst().orElse(frames);
    }

    private final List<Double> changes = new ArrayList<>();
    private @Nullable Plane before;

    /** The next frame's lightness; all of one size. */
    public void add(Plane lightness) {
        changes.add(before == null ? 0 : change(before, lightness));
        before = lightness;
    }

    private static double change(Plane a, Plane b) {
        float[] one = a.samples();
        float[] other = b.samples();
        double sum = 0;
        for (int i = 0; i < one.length; i++) {
            sum += Math.abs(one[i] - other[i]);
        }
        return sum / one.length;
    }

    /** The frames that are the first after a cut, rising. */
    public List<Integer> found() {
        List<Integer> out = new ArrayList<>();
        for (int i = 1; i < changes.size(); i++) {
            double most = 0;
            for (int j = Math.max(1, i - AROUND); j <= Math.min(changes.size() - 1, i + AROUND); j++) {
                most = j == i ? most : Math.max(most, changes.get(j));
            }
            if (changes.get(i) >= LEAST_CHANGE && changes.get(i) >= LEAST_RATIO * most) {
                out.add(i);
            }
        }
        return out;
    }
}
