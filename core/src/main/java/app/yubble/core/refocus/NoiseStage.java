package app.yubble.core.refocus;

import app.yubble.core.finish.Grain;
import app.yubble.core.raster.Size;
import java.util.List;

/** The photo's own noise at the size that is drawn. */
record NoiseStage(MeasuredNoiseStage measured, Size size) implements WholeStage<Grain> {
    static NoiseStage of(PictureStage picture) {
        return new NoiseStage(MeasuredNoiseStage.of(picture), picture.size());
    }

    @Override
    public String name() {
        return "noise";
    }

    @Override
    public List<Stage<?>> takes() {
        return List.of(measured);
    }

    @Override
    public List<?> reads() {
        return List.of(size);
    }

    @Override
    public Class<Grain> type() {
        return Grain.class;
    }

    @Override
    public Grain make(Results taken) {
        double factor = (double) measured.picture().size().longSide() / size.longSide();
        return new Grain(taken.of(measured).shrunk(factor));
    }

    @Override
    public long bytes(Grain result) {
        return result.bytes();
    }
}
