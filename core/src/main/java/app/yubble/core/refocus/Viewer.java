package app.yubble.core.refocus;

import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Progress;
import app.yubble.core.raster.Size;
import java.util.function.Function;

/**
 * Whoever looks at a picture and changes its recipe has one. It keeps what was last looked at, so that a change costs what it
 * changes and not what the picture measures. Safe for many threads, which wait for each other.
 */
public final class Viewer {
    /** A draft, the fitted picture and 100 %. */
    private static final int MOST_SIZES = 3;

    private record Place(String still, Size size) {}

    private final Recent<Place, Sight> sights = new Recent<>(MOST_SIZES);
    private volatile long bytes;

    /**
     * A result.
     *
     * @param line made for what of the picture is drawn already
     * @param whole results of the stages that are not local
     */
    synchronized Picture look(
            Still still, View view, Function<DrawnParts, Line> line, Results whole, Progress progress) {
        try {
            Sight sight =
                    sights.computeIfAbsent(new Place(still.id(), view.size()), place -> new Sight(place.size(), whole));
            return sight.look(line.apply(sight.drawnParts()), view.part(), whole, progress);
        } finally {
            bytes = sights.values().stream().mapToLong(Sight::bytes).sum();
        }
    }

    /** Memory held, after the last look. */
    public long bytes() {
        return bytes;
    }
}
