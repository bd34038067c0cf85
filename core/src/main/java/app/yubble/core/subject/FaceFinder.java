package app.yubble.core.subject;

import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Progress;
import java.util.List;

/** Finds faces. */
@FunctionalInterface
public interface FaceFinder {
    /** One that finds none. */
    FaceFinder NONE = (picture, progress) -> List.of();

    /** The main one first: the largest, those in the middle before those at the border. */
    List<Face> find(Picture picture, Progress progress);
}
