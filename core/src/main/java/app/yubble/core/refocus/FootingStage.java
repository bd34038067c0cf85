package app.yubble.core.refocus;

import app.yubble.core.ladder.Footing;
import java.util.List;

/** What a ladder stands on at one moment. */
record FootingStage(TrimmedStage small) implements WholeStage<Footing> {
    /** Of another moment of the shot whose nearness is corrected as {@code trimmed}. */
    static FootingStage of(TrimmedStage trimmed, Still still) {
        return new FootingStage(trimmed.of(still, still.size().fitting(Footing.SIDE)));
    }

    @Override
    public String name() {
        return "footing";
    }

    @Override
    public List<Stage<?>> takes() {
        return List.of(small, small.picture(), small.depth());
    }

    @Override
    public List<?> reads() {
        return List.of();
    }

    @Override
    public Class<Footing> type() {
        return Footing.class;
    }

    @Override
    public Footing make(Results taken) {
        return new Footing(
                taken.of(small),
                taken.of(small.picture()),
                taken.of(small.depth()).kin());
    }

    @Override
    public long bytes(Footing result) {
        return result.bytes();
    }
}
