package app.yubble.core.refocus;

import app.yubble.core.finish.Grain;
import app.yubble.core.finish.Noise;
import java.util.List;

/**
 * The photo's own noise at the size that is drawn. It is measured in the picture that is kept ready: in a smaller one texture would look
 * like noise.
 */
record NoiseStage(PictureStage picture) implements WholeStage<Grain> {
    @Override
    public String name() {
        return "noise";
    }

    @Override
    public List<Stage<?>> takes() {
        return List.of(measured());
    }

    @Override
    public List<?> reads() {
        return List.of(picture.size());
    }

    private PictureStage measured() {
        return picture.isReduced() ? picture.kept() : picture;
    }

    @Override
    public Class<Grain> type() {
        return Grain.class;
    }

    @Override
    public Grain make(Results taken) {
        double factor = (double) measured().size().longSide() / picture.size().longSide();
        return new Grain(Noise.of(taken.of(measured())).shrunk(factor));
    }

    @Override
    public long bytes(Grain result) {
        return result.bytes();
    }
}
