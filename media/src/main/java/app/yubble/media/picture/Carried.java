package app.yubble.media.picture;

import app.yubble.core.raster.Picture;
import org.jspecify.annotations.Nullable;

/**
 * What goes with a picture that is written, whatever its format.
 *
 * @param space its colours
 * @param keepsPlace whether metadata may say where the photo was taken
 * @param done what was done with it, for the history in its metadata; null for no entry
 */
public record Carried(
        ColourSpace space, boolean keepsPlace, @Nullable String done) {
    /** As it is in the source. */
    public static final Carried ALL = new Carried(ColourSpace.SOURCE, true, null);

    /** The picture in its space, with the metadata that it may have. */
    public DecodedPicture by(Picture picture, Origin origin) {
        return new DecodedPicture(space.converted(picture, origin).picture(), by(origin));
    }

    /** What a picture of this origin says of itself then. */
    Origin by(Origin origin) {
        Notes notes = keepsPlace ? origin.notes() : origin.notes().withoutPlace();
        return space.converted(origin).withNotes(done == null ? notes : notes.withDone(done));
    }
}
