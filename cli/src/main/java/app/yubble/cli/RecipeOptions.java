package app.yubble.cli;

import app.yubble.core.focus.FocusFinder;
import app.yubble.core.focus.SharpBand;
import app.yubble.core.lens.Aperture;
import app.yubble.core.lens.Disc;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Progress;
import app.yubble.core.raster.Size;
import app.yubble.core.recipe.Recipe;
import app.yubble.core.refocus.HeldPhoto;
import app.yubble.core.refocus.RefocusLine;
import app.yubble.core.refocus.View;
import app.yubble.core.refocus.Viewer;
import app.yubble.core.setting.Declared;
import app.yubble.media.picture.Camera;
import app.yubble.media.recipe.RecipeFile;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.Locale;
import java.util.Map;
import java.util.OptionalDouble;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Option;

/** The options that say how a picture is refocused; each overrides the recipe. */
final class RecipeOptions {
    private static final Declared<Disc> DISC = Declared.of(Disc.class);

    @Option(
            names = "--recipe",
            paramLabel = "FILE.json",
            description = "start from this recipe, with or without its masks")
    private @Nullable Path recipeFile;

    @Option(names = "--focus", description = "subject, X,Y or X,Y,W,H in pixels, or a nearness such as 0.62")
    private @Nullable String focus;

    @Option(names = "--band", description = "width of the sharp band in nearness; 0 is a plane")
    private @Nullable Double band;

    @Option(
            names = "--radius-per-nearness",
            description = "pixels of blur radius per unit of nearness outside the band")
    private @Nullable Double radiusPerNearness;

    @Option(names = "--aperture", description = "f-number")
    private @Nullable Double aperture;

    @Option(names = "--focal-length", description = "millimetres")
    private @Nullable Double focalLength;

    @Option(names = "--sensor-width", description = "millimetres")
    private @Nullable Double sensorWidth;

    @Option(names = "--distance", description = "metres from the lens to the middle of the band")
    private @Nullable Double distance;

    @Option(names = "--strength", description = "free strength, 0 to 100")
    private @Nullable Double strength;

    @Option(
            names = "--disc",
            paramLabel = "KEY=VALUE,...",
            description = "blades, curvature, turn, rim, hollow, squeeze, stretch")
    private @Nullable String disc;

    @Option(names = "--glints", description = "0 to 1")
    private @Nullable Double glints;

    /** Made by the command line parser. */
    RecipeOptions() {}

    /** The recipe that was named, else the initial one. */
    Recipe recipe() {
        if (aperture != null && strength != null) {
            throw new WrongUseException("--strength: give either --aperture or --strength, not both");
        }
        if (radiusPerNearness != null && !(radiusPerNearness >= 0)) {
            throw new WrongUseException("--radius-per-nearness: must not be negative, found " + radiusPerNearness);
        }
        return recipeFile == null ? Recipe.INITIAL : read(recipeFile).recipe();
    }

    private static RecipeFile read(Path file) {
        return RecipeFile.read(new String(Inputs.bytes(file), StandardCharsets.UTF_8));
    }

    /** The width that was asked for, else that of {@code usual}. */
    double bandWidth(SharpBand usual) {
        return band != null ? band : usual.near() - usual.far();
    }

    Picture render(RefocusLine line, HeldPhoto shot, Recipe recipe, Size size) {
        if (radiusPerNearness == null) {
            return line.render(shot, recipe, View.of(size), Progress.NONE);
        }
        double scaled = radiusPerNearness * size.width() / shot.size().width();
        return line.render(new Viewer(), shot, recipe, View.of(size), scaled, Progress.NONE);
    }

    /** The recipe with what the options say, for the picture at the size of {@code nearness}. */
    Recipe withOptions(Recipe recipe, HeldPhoto shot, Picture picture, Plane nearness, Camera camera) {
        try {
            Recipe changed = recipe.withAperture(withOptions(recipe.aperture(), camera));
            if (focus != null || recipeFile == null) {
                double scale = (double) nearness.width() / shot.size().width();
                changed = changed.withBand(band(focus == null ? "subject" : focus, shot, picture, nearness, scale));
            }
            if (band != null) {
                changed =
                        changed.withBand(SharpBand.around(changed.band().centre(), band, focusFalloff(changed.band())));
            }
            if (disc != null) {
                changed = changed.withDisc(disc(disc));
            }
            return glints == null
                    ? changed
                    : changed.withGlints(changed.glints().withStrength(glints));
        } catch (IllegalArgumentException fault) {
            throw new WrongUseException(fault.getMessage());
        }
    }

    // An exact band is asked for together with exact radii: the falloff would bend them.
    private double focusFalloff(SharpBand found) {
        return radiusPerNearness != null ? 0 : found.farFalloff();
    }

    private Aperture withOptions(Aperture from, Camera camera) {
        Aperture lens = from.withLens(
                first(
                        focalLength,
                        recipeFile == null ? camera.focalLength() : OptionalDouble.empty(),
                        from.focalLength()),
                first(
                        sensorWidth,
                        recipeFile == null ? camera.sensorWidth() : OptionalDouble.empty(),
                        from.sensorWidth()),
                first(distance, recipeFile == null ? camera.distance() : OptionalDouble.empty(), from.distance()));
        if (strength != null) {
            return lens.withFree(strength);
        }
        return aperture == null ? lens : lens.withFNumber(aperture);
    }

    private static double first(@Nullable Double given, OptionalDouble known, double otherwise) {
        return given != null ? given : known.orElse(otherwise);
    }

    private SharpBand band(String wanted, HeldPhoto shot, Picture picture, Plane nearness, double scale) {
        if (wanted.equals("subject")) {
            return FocusFinder.subject(
                    picture, nearness, shot.map().clearMatte(), Engines.faces().find(picture, Progress.NONE));
        }
        try {
            double[] numbers = java.util.Arrays.stream(wanted.split(","))
                    .mapToDouble(Double::parseDouble)
                    .toArray();
            switch (numbers.length) {
                case 1:
                    if (wanted.contains(".")) {
                        return SharpBand.around(numbers[0], 0, radiusPerNearness != null ? 0 : FocusFinder.FALLOFF);
                    }
                    break;
                case 2:
                    return FocusFinder.spot(nearness, numbers[0] * scale, numbers[1] * scale);
                case 4:
                    return FocusFinder.patch(
                            nearness, numbers[0] * scale, numbers[1] * scale, numbers[2] * scale, numbers[3] * scale);
                default:
            }
        } catch (NumberFormatException notNumbers) {
            // Falls through to the complaint below, which is the same for every wrong form.
        }
        throw new WrongUseException(
                "--focus: must be subject, X,Y, X,Y,W,H or a nearness with a point such as 0.62, found " + wanted);
    }

    private static Disc disc(String text) {
        Disc disc = Disc.ROUND;
        for (String pair : text.split(",", -1)) {
            String[] sides = pair.split("=", 2);
            try {
                disc = DISC.with(
                        disc, sides[0].toLowerCase(Locale.ROOT), Double.parseDouble(sides.length == 2 ? sides[1] : ""));
            } catch (NumberFormatException notANumber) {
                throw new WrongUseException("--disc: \"" + pair + "\" must be KEY=NUMBER");
            } catch (IllegalArgumentException fault) {
                throw new WrongUseException("--disc: " + fault.getMessage());
            }
        }
        return disc;
    }

    /** Masks that touch-ups begin with are in the recipe's file, or lie beside it, named as they stand in it. */
    Map<String, Plane> masks(Recipe recipe, Size picture) {
        Map<String, Plane> out = new HashMap<>();
        if (recipeFile != null) {
            Map<String, byte[]> inside = read(recipeFile).masks();
            for (String each : RecipeFile.masksOf(recipe)) {
                byte[] content = inside.get(each);
                Path beside = recipeFile.resolveSibling(each + ".png");
                out.put(
                        each,
                        content == null ? Inputs.mask(beside, picture) : Inputs.mask(recipeFile, content, picture));
            }
        }
        return out;
    }
}
