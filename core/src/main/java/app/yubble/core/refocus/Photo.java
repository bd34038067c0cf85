package app.yubble.core.refocus;

import app.yubble.core.clip.Moment;
import java.util.List;

/** Material with a single moment. */
public interface Photo extends Material, Still {
    @Override
    default List<Moment> moments() {
        return List.of(Moment.ONLY);
    }

    @Override
    default Still at(Moment moment) {
        if (!moment.equals(Moment.ONLY)) {
            throw new IllegalArgumentException("a photo has no " + moment);
        }
        return this;
    }
}
