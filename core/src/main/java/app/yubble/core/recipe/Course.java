package app.yubble.core.recipe;

import app.yubble.core.clip.Moment;

/** What the recipe of a shot is at each of its moments. A plain recipe is the same at all of them. */
@FunctionalInterface
public interface Course {
    Recipe at(Moment moment);
}
