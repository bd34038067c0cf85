package app.yubble.media.recipe;

import app.yubble.core.touchup.Stroke;
import app.yubble.core.touchup.Touchup;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import org.jspecify.annotations.Nullable;

/**
 * A touch-up as it stands in a recipe; see {@link Touchup}.
 *
 * @param action {@code focus}, {@code blur}, {@code match} or {@code reveal}
 */
public record TouchupPart(
        @Nullable String id,
        @Nullable String name,
        @Nullable String action,
        @Nullable Double strength,
        @Nullable Double target,
        @Nullable Boolean shown,
        @Nullable Boolean inverted,
        @Nullable List<StrokePart> strokes) {
    private static final int LONGEST_NAME = 80;
    private static final int MOST_STROKES = 2000;
    private static final double USUAL_SIZE = 0.05;
    private static final double ROUNDING = 1e5;
    // Half a pixel of a picture 25 000 pixels wide.
    private static final double TOLERANCE = 2e-5;

    /**
     * A stroke; see {@link Stroke.Brush}.
     *
     * @param edges what paint clings to: {@code photo}, {@code depth} or {@code both}
     * @param pressure what a pen's pressure changes: {@code nothing}, {@code size} or {@code build-up}
     * @param points x in shares of the width, y of the height, and pressure, point after point
     */
    public record StrokePart(
            @Nullable Boolean erases,
            @Nullable Double size,
            @Nullable Double softness,
            @Nullable Double buildUp,
            @Nullable Double cling,
            @Nullable String edges,
            @Nullable String pressure,
            double @Nullable [] points) {
        static StrokePart of(Stroke stroke) {
            Stroke.Brush brush = stroke.brush();
            float[] from = stroke.points();
            double[] points = new double[from.length];
            for (int i = 0; i < points.length; i++) {
                points[i] = Math.round(from[i] * ROUNDING) / ROUNDING;
            }
            return new StrokePart(
                    brush.erases(),
                    brush.size(),
                    brush.softness(),
                    brush.buildUp(),
                    brush.cling(),
                    written(brush.edges()),
                    written(brush.pressure()),
                    points);
        }

        Stroke toStroke() {
            if (points == null) {
                throw new IllegalArgumentException("a stroke needs points");
            }
            float[] to = new float[points.length];
            for (int i = 0; i < to.length; i++) {
                to[i] = (float) (Math.round(points[i] * ROUNDING) / ROUNDING);
            }
            return new Stroke(
                    new Stroke.Brush(
                            Boolean.TRUE.equals(erases),
                            RecipeDocument.or(size, USUAL_SIZE),
                            RecipeDocument.or(softness, 0),
                            RecipeDocument.or(buildUp, 1),
                            RecipeDocument.or(cling, 0),
                            named(Stroke.Edges.class, "what a stroke clings to", edges, Stroke.Edges.PHOTO),
                            named(Stroke.Pressure.class, "stroke pressure", pressure, Stroke.Pressure.NOTHING)),
                    to.length > Stroke.VALUES * Stroke.MOST_POINTS && to.length % Stroke.VALUES == 0
                            ? Stroke.simplified(to, 1, TOLERANCE)
                            : to);
        }
    }

    static TouchupPart of(Touchup touchup) {
        return new TouchupPart(
                touchup.id(),
                touchup.name(),
                written(touchup.action()),
                touchup.strength(),
                touchup.target(),
                touchup.shown(),
                touchup.inverted(),
                touchup.strokes().stream().map(StrokePart::of).toList());
    }

    Touchup toTouchup() {
        if (id == null || id.isBlank() || id.length() > LONGEST_NAME) {
            throw new IllegalArgumentException("a touch-up needs an id of at most " + LONGEST_NAME + " characters");
        }
        if (name != null && name.length() > LONGEST_NAME) {
            throw new IllegalArgumentException("a touch-up's name has at most " + LONGEST_NAME + " characters");
        }
        if (strokes != null && strokes.size() > MOST_STROKES) {
            throw new IllegalArgumentException(
                    "a touch-up has at most " + MOST_STROKES + " strokes, found " + strokes.size());
        }
        return new Touchup(
                id,
                name == null ? "" : name,
                named(Touchup.Action.class, "touch-up action", action, Touchup.Action.FOCUS),
                RecipeDocument.or(strength, 1),
                RecipeDocument.or(target, 0),
                !Boolean.FALSE.equals(shown),
                Boolean.TRUE.equals(inverted),
                strokes == null
                        ? List.of()
                        : strokes.stream().map(StrokePart::toStroke).toList());
    }

    private static String written(Enum<?> value) {
        return value.name().toLowerCase(Locale.ROOT).replace('_', '-');
    }

    private static <E extends Enum<E>> E named(Class<E> of, String what, @Nullable String name, E usual) {
        if (name == null) {
            return usual;
        }
        return Arrays.stream(of.getEnumConstants())
                .filter(each -> written(each).equals(name))
                .findFirst()
                .orElseThrow(() -> new IllegalArgumentException(what + " \"" + name + "\" is not known; there are "
                        + String.join(
                                ", ",
                                Arrays.stream(of.getEnumConstants())
                                        .map(TouchupPart::written)
                                        .toList())));
    }
}
