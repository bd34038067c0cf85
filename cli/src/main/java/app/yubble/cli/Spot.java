package app.yubble.cli;

import app.yubble.core.follow.Put;
import app.yubble.core.raster.Size;

/**
 * A place in a clip.
 *
 * @param frame from 0
 * @param put the same as time and shares of the picture's sides
 */
record Spot(int frame, Put put) {
    /** @param text X,Y in pixels of the full frame, and @F after it when that is not the first one */
    static Spot of(String text, ClipWork work, String option) {
        String[] parts = text.split("@", 2);
        double[] place = TrackCommand.place(parts[0], option);
        Size full = work.sheet().info().size();
        TrackCommand.requireInside(place, full, option);
        try {
            int frame = ClipCommand.frame(
                            parts.length == 2 ? Integer.parseInt(parts[1].strip()) : 1, 1, option, work.sheet())
                    - 1;
            return new Spot(frame, TrackCommand.put(work, frame, place));
        } catch (NumberFormatException none) {
            throw new WrongUseException(option + ": must be X,Y or X,Y@FRAME, found " + text);
        }
    }
}
