package app.yubble.media.recipe;

import app.yubble.core.depth.DepthTrim;
import app.yubble.core.focus.Gain;
import app.yubble.core.focus.SharpBand;
import app.yubble.core.lens.Aperture;
import app.yubble.core.lens.Disc;
import app.yubble.core.lens.Glints;
import app.yubble.core.recipe.DepthChoice;
import app.yubble.core.recipe.Recipe;
import app.yubble.core.touchup.Touchup;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;

/**
 * A recipe as it stands in a file or a request. A part that is missing has its default; see docs/formats.md.
 *
 * @param format always {@code yubble-recipe}
 * @param version of the format; 1
 */
public record RecipeDocument(
        @Nullable String format,
        @Nullable Integer version,
        @Nullable DepthPart depth,
        @Nullable List<TouchupPart> touchups,
        @Nullable BandPart band,
        @Nullable AperturePart aperture,
        @Nullable GainPart gain,
        @Nullable DiscPart disc,
        @Nullable Double glints,
        @Nullable Double glintThreshold,
        @Nullable Double opacity) {
    public static final String FORMAT = "yubble-recipe";

    /**
     * {@code source} is {@code estimated}, {@code camera} or {@code file}; for {@code snap} see {@link DepthChoice}, for the
     * others {@link DepthTrim}.
     */
    public record DepthPart(
            @Nullable String source,
            @Nullable Double snap,
            @Nullable Boolean flip,
            @Nullable Double farEnd,
            @Nullable Double nearEnd,
            @Nullable Double bend,
            @Nullable Double edges,
            @Nullable Double settle) {
        public static DepthPart of(DepthChoice choice) {
            DepthTrim trim = choice.trim();
            return new DepthPart(
                    choice.source().name().toLowerCase(Locale.ROOT),
                    choice.snap(),
                    trim.flip(),
                    trim.farEnd(),
                    trim.nearEnd(),
                    trim.bend(),
                    trim.edges(),
                    trim.settle());
        }

        /**
         * What is missing is as it usually is for the source.
         *
         * @throws IllegalArgumentException when a number is out of range or the source is not known
         */
        public DepthChoice toChoice() {
            DepthChoice usual = DepthChoice.of(sourceNamed(source));
            DepthTrim none = DepthTrim.NONE;
            return new DepthChoice(
                    usual.source(),
                    or(snap, usual.snap()),
                    new DepthTrim(
                            Boolean.TRUE.equals(flip),
                            or(farEnd, none.farEnd()),
                            or(nearEnd, none.nearEnd()),
                            or(bend, none.bend()),
                            or(edges, none.edges()),
                            or(settle, none.settle())));
        }

        private static DepthChoice.Source sourceNamed(@Nullable String name) {
            if (name == null) {
                return DepthChoice.Source.ESTIMATED;
            }
            for (DepthChoice.Source source : DepthChoice.Source.values()) {
                if (source.name().toLowerCase(Locale.ROOT).equals(name)) {
                    return source;
                }
            }
            throw new IllegalArgumentException(
                    "depth source must be \"estimated\", \"camera\" or \"file\", found \"" + name + "\"");
        }
    }

    /** See {@link SharpBand}. */
    public record BandPart(
            @Nullable Double near,
            @Nullable Double far,
            @Nullable Double nearFalloff,
            @Nullable Double farFalloff,
            @Nullable Double tiltAcross,
            @Nullable Double tiltDown) {
        public static BandPart of(SharpBand band) {
            return new BandPart(
                    band.near(), band.far(), band.nearFalloff(), band.farFalloff(), band.tiltAcross(), band.tiltDown());
        }
    }

    /** See {@link Aperture}; {@code mode} is {@code f-number} or {@code free}. */
    public record AperturePart(
            @Nullable String mode,
            @Nullable Double fNumber,
            @Nullable Double focalLength,
            @Nullable Double sensorWidth,
            @Nullable Double distance,
            @Nullable Double strength) {}

    /** See {@link Gain}. */
    public record GainPart(@Nullable Double front, @Nullable Double behind) {}

    /** See {@link Disc}. */
    public record DiscPart(
            @Nullable Integer blades,
            @Nullable Double curvature,
            @Nullable Double turn,
            @Nullable Double rim,
            @Nullable Double hollow,
            @Nullable Double squeeze,
            @Nullable Double stretch) {
        public static DiscPart of(Disc disc) {
            return new DiscPart(
                    disc.blades(),
                    disc.curvature(),
                    disc.turn(),
                    disc.rim(),
                    disc.hollow(),
                    disc.squeeze(),
                    disc.stretch());
        }

        Disc toDisc() {
            Disc usual = Disc.ROUND;
            return new Disc(
                    blades == null ? usual.blades() : blades,
                    or(curvature, usual.curvature()),
                    or(turn, usual.turn()),
                    or(rim, usual.rim()),
                    or(hollow, usual.hollow()),
                    or(squeeze, usual.squeeze()),
                    or(stretch, usual.stretch()));
        }
    }

    public static RecipeDocument of(Recipe recipe) {
        SharpBand band = recipe.band();
        Aperture aperture = recipe.aperture();
        return new RecipeDocument(
                FORMAT,
                Recipe.FORMAT_VERSION,
                DepthPart.of(recipe.depth()),
                recipe.touchups().stream().map(TouchupPart::of).toList(),
                BandPart.of(band),
                new AperturePart(
                        aperture.mode() == Aperture.Mode.FREE ? "free" : "f-number",
                        aperture.fNumber(),
                        aperture.focalLength(),
                        aperture.sensorWidth(),
                        aperture.distance(),
                        aperture.strength()),
                new GainPart(recipe.gain().front(), recipe.gain().behind()),
                DiscPart.of(recipe.disc()),
                recipe.glints().strength(),
                recipe.glints().threshold(),
                recipe.opacity());
    }

    /**
     * The recipe.
     *
     * @throws BadRecipeException with all faults
     */
    public Recipe toRecipe() {
        if (!FORMAT.equals(format)) {
            throw new BadRecipeException(List.of("not a recipe: \"format\" must be \"" + FORMAT + "\""));
        }
        if (version == null || version != Recipe.FORMAT_VERSION) {
            throw new BadRecipeException(List.of(
                    "recipe version " + version + " is not known; this Yubble reads version " + Recipe.FORMAT_VERSION));
        }
        Recipe initial = Recipe.INITIAL;
        List<String> faults = new ArrayList<>();
        DepthChoice depthChoice = part(faults, initial.depth(), this::depthChoice);
        List<Touchup> painted = part(faults, List.of(), this::painted);
        SharpBand sharpBand = part(faults, initial.band(), this::sharpBand);
        Aperture lensAperture = part(faults, initial.aperture(), this::lensAperture);
        Gain sides = part(
                faults,
                initial.gain(),
                () -> gain == null ? Gain.EVEN : new Gain(or(gain.front, 1), or(gain.behind, 1)));
        Disc shape = part(faults, initial.disc(), () -> disc == null ? Disc.ROUND : disc.toDisc());
        Glints lift = part(
                faults,
                initial.glints(),
                () -> new Glints(
                        or(glints, initial.glints().strength()),
                        or(glintThreshold, initial.glints().threshold())));
        Recipe whole = part(
                faults,
                initial,
                () -> new Recipe(depthChoice, painted, sharpBand, lensAperture, sides, shape, lift, or(opacity, 1)));
        if (!faults.isEmpty()) {
            throw new BadRecipeException(faults);
        }
        return whole;
    }

    private DepthChoice depthChoice() {
        return depth == null ? DepthChoice.ESTIMATE : depth.toChoice();
    }

    private List<Touchup> painted() {
        return touchups == null ? List.of() : TouchupPart.each("touch-up", touchups, TouchupPart::toTouchup);
    }

    private SharpBand sharpBand() {
        SharpBand all = Recipe.INITIAL.band();
        return band == null
                ? all
                : new SharpBand(
                        or(band.near, all.near()),
                        or(band.far, all.far()),
                        or(band.nearFalloff, all.nearFalloff()),
                        or(band.farFalloff, all.farFalloff()),
                        or(band.tiltAcross, 0),
                        or(band.tiltDown, 0));
    }

    private Aperture lensAperture() {
        Aperture usual = Aperture.DEFAULT;
        if (aperture == null) {
            return usual;
        }
        Aperture.Mode mode;
        if (aperture.mode == null || aperture.mode.equals("f-number")) {
            mode = Aperture.Mode.F_NUMBER;
        } else if (aperture.mode.equals("free")) {
            mode = Aperture.Mode.FREE;
        } else {
            throw new IllegalArgumentException(
                    "aperture mode must be \"f-number\" or \"free\", found \"" + aperture.mode + "\"");
        }
        return new Aperture(
                mode,
                or(aperture.fNumber, usual.fNumber()),
                or(aperture.focalLength, usual.focalLength()),
                or(aperture.sensorWidth, usual.sensorWidth()),
                or(aperture.distance, usual.distance()),
                or(aperture.strength, usual.strength()));
    }

    static double or(@Nullable Double value, double otherwise) {
        return value == null ? otherwise : value;
    }

    private static <T> T part(List<String> faults, T otherwise, Supplier<T> made) {
        try {
            return made.get();
        } catch (IllegalArgumentException fault) {
            faults.add(fault.getMessage());
            return otherwise;
        }
    }
}
