package app.yubble.cli;

import app.yubble.media.picture.Carried;
import app.yubble.media.picture.ColourSpace;
import app.yubble.media.picture.PictureWriter;
import app.yubble.media.picture.WriteSettings;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Option;

/** The options that say how a picture is written. */
final class WriteOptions {
    private static final double DEFAULT_QUALITY = 94;
    /** Below this blocks are seen. */
    private static final double LEAST_QUALITY = 30;

    private static final Map<String, ColourSpace> SPACES = Map.of(
            "source", ColourSpace.SOURCE,
            "srgb", ColourSpace.SRGB,
            "p3", ColourSpace.DISPLAY_P3,
            "bt2020", ColourSpace.BT2020);

    @Option(names = "--quality", description = "30 to 100, of jpg, webp and avif; the last two lose nothing at 100")
    private @Nullable Double quality;

    @Option(names = "--space", description = "source, srgb, p3 or bt2020: the colour space of the result")
    private @Nullable String space;

    @Option(names = "--halve-colour", description = "colour of a jpg or avif at half resolution")
    private boolean halvesColour;

    @Option(names = "--no-place", description = "metadata do not say where the photo was taken")
    private boolean noPlace;

    /** Made by the command line parser. */
    WriteOptions() {}

    /** @param done for the history in the metadata */
    WriteSettings settings(PictureWriter.Format format, String done) {
        double percent = quality == null ? DEFAULT_QUALITY : quality;
        if (!(percent >= LEAST_QUALITY && percent <= 100)) {
            throw new WrongUseException("--quality: must be from 30 to 100, found " + quality);
        }
        ColourSpace wanted = SPACES.get(space == null ? "source" : space);
        if (wanted == null) {
            throw new WrongUseException("--space: must be source, srgb, p3 or bt2020, found " + space);
        }
        return new WriteSettings(format, percent / 100, halvesColour, new Carried(wanted, !noPlace, done));
    }
}
