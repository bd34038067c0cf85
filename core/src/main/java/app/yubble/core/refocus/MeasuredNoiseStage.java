package app.yubble.core.refocus;

import app.yubble.core.finish.Noise;
import java.util.List;

/** The photo's own noise, measured once for all smaller sizes: in a small picture texture would look like noise. */
record MeasuredNoiseStage(PictureStage picture) implements StoredStage<Noise> {
    private static final Form<Noise> FORM = Form.of(Noise::written, Noise::read);

    /** For a picture: in the one that it is made from, if that is kept ready. */
    static MeasuredNoiseStage of(PictureStage picture) {
        return new MeasuredNoiseStage(picture.isReduced() ? picture.kept() : picture);
    }

    @Override
    public Still still() {
        return picture.still();
    }

    @Override
    public Form<Noise> form() {
        return FORM;
    }

    @Override
    public String name() {
        return "measured noise";
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
    public Class<Noise> type() {
        return Noise.class;
    }

    @Override
    public Noise make(Results taken) {
        return Noise.of(taken.of(picture));
    }

    @Override
    public long bytes(Noise result) {
        return Noise.BYTES;
    }
}
