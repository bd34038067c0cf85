package app.yubble.media.recipe;

import app.yubble.core.lens.Aperture;
import app.yubble.core.recipe.Recipe;
import app.yubble.core.touchup.Touchup;
import java.util.Locale;

/** A recipe in a line of plain words, for the history in a picture's metadata. */
public final class Done {
    private Done() {}

    public static String of(Recipe recipe) {
        Aperture aperture = recipe.aperture();
        String blur = aperture.mode() == Aperture.Mode.FREE
                ? String.format(Locale.ROOT, "blur of %.0f %%", aperture.strength())
                : String.format(Locale.ROOT, "blur of f/%.1f at %.0f mm", aperture.fNumber(), aperture.focalLength());
        long touchups = recipe.touchups().stream().filter(Touchup::acts).count();
        return String.format(
                Locale.ROOT,
                "refocused to nearness %.3f to %.3f, %s%s%s",
                recipe.band().far(),
                recipe.band().near(),
                blur,
                touchups == 0 ? "" : touchups == 1 ? ", 1 touch-up" : ", " + touchups + " touch-ups",
                recipe.opacity() < 1 ? String.format(Locale.ROOT, ", opacity %.0f %%", 100 * recipe.opacity()) : "");
    }
}
