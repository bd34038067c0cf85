package app.yubble.core.keep;

import app.yubble.core.keep.SceneSource.Scene;
import app.yubble.core.raster.Plane;
import java.util.Arrays;
import org.jspecify.annotations.Nullable;

/** Tells of what came out from behind something whether it is a subject's. */
final class ComesBack {
    /** What depth or a matte say for the object, in logarithms of odds. */
    private static final float BY_DEPTH = 2;
    /** What its looks say. */
    private static final float BY_LOOKS = 5;
    /** How much a place must look as it did in the shape that is remembered. */
    private static final float LIKE = 0.3f;
    /** Mask from which a pixel is all subject. */
    private static final float ALL = 0.9f;
    /** Share of the subject's depths at either end that may be something else's. */
    private static final double OUTLIERS = 0.03;
    /** Of the span of its depths, and of nearness: by how much others may lie beside them. */
    private static final float AIR_SHARE = 0.25f;
    /** See {@link #AIR_SHARE}. */
    private static final float AIR = 0.01f;
    /** Of a matte: from which something may be of the subject. */
    private static final float MATTE = 0.3f;
    /** Of a matte: below which nothing is. */
    private static final float NO_MATTE = 0.02f;
    /** Share of what came along that must be in a matte that is believed. */
    private static final double BELIEVED = 0.6;

    private final float[][] colours;
    private final float[] nearness;
    private final float @Nullable [] matte;
    private final float farthest;
    private final float nearest;
    private final boolean[] known;
    private final LastSeen.@Nullable At whole;

    /**
     * @param colours of the scene, rooted
     * @param sure what went along: nothing is 0
     * @param known colours that it has: {@link Memory#known}
     * @param whole where the shape lies that it had; null when nearly all of it is seen
     */
    ComesBack(Scene scene, float[][] colours, Plane sure, boolean[] known, LastSeen.@Nullable At whole) {
        this.colours = colours;
        this.known = known;
        this.whole = whole;
        nearness = scene.nearness().samples();
        matte = scene.matte() != null && holds(scene.matte(), sure)
                ? scene.matte().samples()
                : null;
        float[] own = new float[nearness.length];
        int count = 0;
        for (int i = 0; i < own.length; i++) {
            if (sure.samples()[i] > ALL) {
                own[count++] = nearness[i];
            }
        }
        Arrays.sort(own, 0, count);
        float low = count == 0 ? 0 : own[(int) (count * OUTLIERS)];
        float high = count == 0 ? 1 : own[(int) (count * (1 - OUTLIERS))];
        float air = AIR_SHARE * (high - low) + AIR;
        farthest = low - air;
        nearest = high + air;
    }

    private static boolean holds(Plane matte, Plane sure) {
        double both = 0;
        for (int i = 0; i < sure.samples().length; i++) {
            both += sure.samples()[i] * matte.samples()[i];
        }
        return both > BELIEVED * Carry.area(sure);
    }

    /**
     * What is said for the object, in logarithms of odds; negative where nothing of it can be.
     *
     * @param isNear whether it is near where it was seen last
     */
    float odds(int place, boolean isNear) {
        boolean isOut = matte != null && matte[place] <= NO_MATTE;
        if (!isOut && whole != null && whole.like(colours, place) > LIKE) {
            return BY_LOOKS;
        }
        boolean fits =
                nearness[place] >= farthest && nearness[place] <= nearest || matte != null && matte[place] > MATTE;
        boolean mayBe =
                isNear && !isOut && fits && known[Memory.bin(colours[0][place], colours[1][place], colours[2][place])];
        // With a shape to go by, what lies elsewhere is left to its colours.
        return mayBe ? whole == null ? BY_DEPTH : 0 : -1;
    }
}
