package app.yubble.media.recipe;

import app.yubble.core.touchup.PickOut;
import app.yubble.core.touchup.Stroke;
import app.yubble.core.touchup.Touchup;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;

/**
 * A touch-up as it stands in a recipe; see {@link Touchup}.
 *
 * @param action {@code focus}, {@code blur}, {@code match} or {@code reveal}
 * @param maskFile the SHA-256 hash of a mask that was brought in for the shot, in hexadecimal
 * @param grow how far the painted area's edge moves out, in shares of the picture's longer side
 * @param soften over how much to either side that edge fades, likewise
 */
public record TouchupPart(
        @Nullable String id,
        @Nullable String name,
        @Nullable String action,
        @Nullable Double strength,
        @Nullable Double target,
        @Nullable Boolean shown,
        @Nullable Boolean inverted,
        @Nullable List<StrokePart> strokes,
        @Nullable PickOutPart pickOut,
        @Nullable String maskFile,
        @Nullable Double grow,
        @Nullable Double soften) {
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
            if (points.length > Stroke.VALUES * Stroke.MOST_RAW_POINTS) {
                throw new IllegalArgumentException("a stroke has at most " + Stroke.MOST_POINTS
                        + " points when it is simplified and " + Stroke.MOST_RAW_POINTS + " before that, found "
                        + points.length / Stroke.VALUES);
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

    /**
     * An object as it was pointed out; see {@link PickOut}. In shares of the picture.
     *
     * @param marks strokes; those that erase lie on what does not belong to the object
     */
    public record PickOutPart(
            @Nullable Double left,
            @Nullable Double top,
            @Nullable Double width,
            @Nullable Double height,
            @Nullable List<StrokePart> marks) {
        static PickOutPart of(PickOut pickOut) {
            return new PickOutPart(
                    pickOut.left(),
                    pickOut.top(),
                    pickOut.width(),
                    pickOut.height(),
                    pickOut.marks().stream().map(StrokePart::of).toList());
        }

        PickOut toPickOut() {
            return new PickOut(
                    RecipeDocument.or(left, 0),
                    RecipeDocument.or(top, 0),
                    RecipeDocument.or(width, 1),
                    RecipeDocument.or(height, 1),
                    marks == null ? List.of() : each("mark", marks, StrokePart::toStroke));
        }
    }

    public static TouchupPart of(Touchup touchup) {
        PickOut pickOut = touchup.start().pickOut();
        return new TouchupPart(
                touchup.id(),
                touchup.name(),
                written(touchup.action()),
                touchup.strength(),
                touchup.target(),
                touchup.shown(),
                touchup.inverted(),
                touchup.strokes().stream().map(StrokePart::of).toList(),
                pickOut == null ? null : PickOutPart.of(pickOut),
                touchup.start().file(),
                touchup.rim().grow(),
                touchup.rim().soften());
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
                strokes == null ? List.of() : each("stroke", strokes, StrokePart::toStroke),
                new Touchup.Start(pickOut == null ? null : pickOut.toPickOut(), maskFile),
                new Touchup.Rim(RecipeDocument.or(grow, 0), RecipeDocument.or(soften, 0)));
    }

    /** What a list of parts stands for; in JSON a part can be null. */
    static <P, T> List<T> each(String what, List<P> parts, Function<P, T> meaning) {
        if (parts.stream().anyMatch(Objects::isNull)) {
            throw new IllegalArgumentException("a " + what + " must not be null");
        }
        return parts.stream().map(meaning).toList();
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
