package app.yubble.core.subject;

import app.yubble.core.raster.Flood;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Size;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * The separate things in a matte: its connected parts (by the four neighbours, where the matte is over a half), largest
 * first. Parts under a three-hundredth of the largest are specks and belong to no thing.
 *
 * @param labels 0 for no thing, else 1 for the largest, 2 for the next; row-major at the matte's size
 * @param count number of things
 */
public record Instances(int width, int height, int[] labels, int count) {
    /** Matte from which a pixel belongs to a thing. */
    private static final float INSIDE = 0.5f;
    /** A thing is at least this fraction of the largest; smaller ones are faults of the matte. */
    private static final int SPECK_SHARE = 300;

    public static Instances of(Plane matte) {
        int width = matte.width();
        float[] alpha = matte.samples();
        int[] found = new int[alpha.length];
        List<Integer> sizes = new ArrayList<>();
        Flood flood = new Flood(matte.size());
        for (int i = 0; i < alpha.length; i++) {
            if (alpha[i] > INSIDE && !flood.isTaken(i)) {
                int[] thing = flood.from(i, false, (at, to) -> alpha[to] > INSIDE);
                sizes.add(thing.length);
                for (int place : thing) {
                    found[place] = sizes.size();
                }
            }
        }
        int largest = sizes.stream().max(Comparator.naturalOrder()).orElse(0);
        List<Integer> order = new ArrayList<>();
        for (int label = 1; label <= sizes.size(); label++) {
            if (sizes.get(label - 1) * SPECK_SHARE >= largest) {
                order.add(label);
            }
        }
        order.sort(Comparator.comparing((Integer label) -> sizes.get(label - 1)).reversed());
        int[] renamed = new int[sizes.size() + 1];
        for (int rank = 0; rank < order.size(); rank++) {
            renamed[order.get(rank)] = rank + 1;
        }
        for (int i = 0; i < found.length; i++) {
            found[i] = renamed[found[i]];
        }
        return new Instances(width, matte.height(), found, order.size());
    }

    /** The same in fewer pixels, and no more than {@code most} things. */
    public Instances reduced(Size size, int most) {
        int[] fewer = new int[(int) size.pixels()];
        for (int i = 0; i < fewer.length; i++) {
            int x = i % size.width() * width / size.width();
            int y = i / size.width() * height / size.height();
            int label = labels[y * width + x];
            fewer[i] = label > most ? 0 : label;
        }
        return new Instances(size.width(), size.height(), fewer, Math.min(most, count));
    }

    /** The middle of a thing, in shares of width and height; null when it has no pixel. */
    public double @Nullable [] middle(int label) {
        double x = 0;
        double y = 0;
        int pixels = 0;
        for (int i = 0; i < labels.length; i++) {
            if (labels[i] == label) {
                x += i % width + 0.5;
                y += i / width + 0.5;
                pixels++;
            }
        }
        return pixels == 0 ? null : new double[] {x / pixels / width, y / pixels / height};
    }
}
