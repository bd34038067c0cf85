package app.yubble.core.refocus;

import app.yubble.core.atmosphere.MistColour;
import java.util.List;

/** The light of what lies farthest, for mist. */
record SceneColourStage(PictureStage picture, LadderedStage laddered) implements WholeStage<MistColour> {
    @Override
    public String name() {
        return "scene colour";
    }

    @Override
    public List<Stage<?>> takes() {
        return List.of(picture, laddered);
    }

    @Override
    public List<?> reads() {
        return List.of();
    }

    @Override
    public Class<MistColour> type() {
        return MistColour.class;
    }

    @Override
    public MistColour make(Results taken) {
        return MistColour.ofScene(taken.of(picture), taken.of(laddered));
    }

    @Override
    public long bytes(MistColour result) {
        return 3 * Float.BYTES;
    }
}
