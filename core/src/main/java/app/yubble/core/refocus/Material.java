package app.yubble.core.refocus;

import app.yubble.core.clip.Moment;
import java.util.List;

/** What a shot consists of: a picture and depth at each of its moments. */
public interface Material {
    /** In order of their frames; never empty. */
    List<Moment> moments();

    /** @throws IllegalArgumentException when the shot has no such moment */
    Still at(Moment moment);
}
