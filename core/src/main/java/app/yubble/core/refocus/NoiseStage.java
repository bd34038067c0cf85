package app.yubble.core.refocus;

import app.yubble.core.finish.Grain;
import app.yubble.core.finish.Noise;
import java.util.List;

/** The photo's own noise. */
record NoiseStage(PictureStage picture) implements WholeStage<Grain> {
    @Override
    public String name() {
        return "noise";
    }

    @Override
    public List<Stage<?>> takes() {
        return List.of(picture);
    }

    @Override
    public List<?> reads() {
        return List.of();
    }

    @Override
    public Class<Grain> type() {
        return Grain.class;
    }

    @Override
    public Grain make(Results taken) {
        return new Grain(Noise.of(taken.of(picture)));
    }

    @Override
    public long bytes(Grain result) {
        return result.bytes();
    }
}
