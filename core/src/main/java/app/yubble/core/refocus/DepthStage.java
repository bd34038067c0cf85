package app.yubble.core.refocus;

import app.yubble.core.depth.DepthEstimate;
import app.yubble.core.recipe.DepthChoice;
import java.util.List;

/** The depth map as it is stored, of any size. */
record DepthStage(Still still, DepthChoice.Source source) implements WholeStage<DepthEstimate> {
    @Override
    public String name() {
        return "depth";
    }

    @Override
    public List<Stage<?>> takes() {
        return List.of();
    }

    @Override
    public List<?> reads() {
        return List.of(still.id(), source, still.depthId(source));
    }

    @Override
    public Class<DepthEstimate> type() {
        return DepthEstimate.class;
    }

    @Override
    public DepthEstimate make(Results taken) {
        return still.depth(source);
    }

    @Override
    public long bytes(DepthEstimate result) {
        return result.nearness().bytes()
                + (result.subject() == null ? 0 : result.subject().matte().bytes())
                + (result.sure() == null ? 0 : result.sure().bytes())
                + (result.kin() == null ? 0 : result.kin().bytes());
    }
}
