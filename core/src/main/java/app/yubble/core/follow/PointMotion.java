package app.yubble.core.follow;

import app.yubble.core.raster.Plane;

/** What a library for moving pictures does. */
public interface PointMotion {
    /**
     * Where points of one picture are in another of the same size.
     *
     * @param points x and y of one after the other
     * @param expected where they may be; of the same length
     * @return as {@code points}; not a number for those that are not found
     */
    float[] moved(GreyFrame from, GreyFrame to, float[] points, float[] expected);

    /**
     * How like a patch each part of a picture is: the correlation of both less their means, in [-1,1].
     *
     * @param patch smaller than the picture
     * @return at (x, y) that of the part whose upper left pixel is there
     */
    Plane likeness(GreyFrame picture, GreyFrame patch);
}
