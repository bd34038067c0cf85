package app.yubble.core.refocus;

import app.yubble.core.ladder.Ladder;
import app.yubble.core.ladder.Rung;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Size;
import app.yubble.core.recipe.DepthChoice;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/** Nearness in the order of a ladder. Rungs stand on the moments at which they were clicked, whatever moment this is. */
record LadderedStage(TrimmedStage trimmed, List<Rung> ladder) implements PlaneStage {
    static LadderedStage of(Still still, DepthChoice depth, Size size) {
        return new LadderedStage(TrimmedStage.of(still, depth, size), depth.ladder());
    }

    private FootingStage footing() {
        return FootingStage.of(trimmed, picture().still());
    }

    /** Of the moment at which a rung was clicked. */
    private FootingStage footing(Rung rung) {
        return FootingStage.of(trimmed, picture().still().at(rung.at()));
    }

    /** As it stands. */
    Ladder stand(Results taken) {
        return new Ladder(
                ladder, ladder.stream().map(rung -> taken.of(footing(rung))).toList());
    }

    PictureStage picture() {
        return trimmed.picture();
    }

    @Override
    public String name() {
        return "laddered";
    }

    @Override
    public List<Stage<?>> takes() {
        Set<Stage<?>> out = new LinkedHashSet<>(List.of(trimmed, picture()));
        if (!ladder.isEmpty()) {
            out.add(footing());
        }
        ladder.forEach(rung -> out.add(footing(rung)));
        return List.copyOf(out);
    }

    @Override
    public List<?> reads() {
        return ladder;
    }

    @Override
    public @Nullable Stage<Plane> passes() {
        return ladder.isEmpty() ? trimmed : null;
    }

    @Override
    public Plane make(Results taken) {
        return stand(taken).move(taken.of(trimmed), taken.of(picture()), taken.of(footing()));
    }
}
