package app.yubble.core.refocus;

import app.yubble.core.atmosphere.MistColour;
import java.util.List;

/** The light of what lies farthest, for mist. */
record SceneColourStage(PictureStage picture, TrimmedStage trimmed) implements WholeStage<MistColour> {
    @Override
    public String name() {
        return "scene colour";
    }

    @Override
    public List<Stage<?>> takes() {
        return List.of(picture, trimmed);
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
        return MistColour.ofScene(taken.of(picture), taken.of(trimmed));
    }

    @Override
    public long bytes(MistColour result) {
        return 3 * Float.BYTES;
    }
}
