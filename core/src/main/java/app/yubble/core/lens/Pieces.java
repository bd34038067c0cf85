package app.yubble.core.lens;

import java.util.Arrays;

/**
 * Parts of pixels at depth edges: what of a pixel belongs to the nearer side, with a colour and a coverage of its own. They
 * are gathered row by row.
 */
final class Pieces {
    /** Row in the upper 16 bits, column in the lower. */
    int[] places = new int[64];

    float[] radius = new float[64];
    float[] coverage = new float[64];
    /** Premultiplied. */
    float[] red = new float[64];

    float[] green = new float[64];
    float[] blue = new float[64];
    int count;

    void add(int x, int y, float blurRadius, float alpha, float r, float g, float b) {
        if (count == places.length) {
            int more = count * 2;
            places = Arrays.copyOf(places, more);
            radius = Arrays.copyOf(radius, more);
            coverage = Arrays.copyOf(coverage, more);
            red = Arrays.copyOf(red, more);
            green = Arrays.copyOf(green, more);
            blue = Arrays.copyOf(blue, more);
        }
        places[count] = y << 16 | x;
        radius[count] = blurRadius;
        coverage[count] = alpha;
        red[count] = r;
        green[count] = g;
        blue[count] = b;
        count++;
    }
}
