package app.yubble.vision;

import app.yubble.core.depth.DepthEstimate;
import app.yubble.core.depth.DepthEstimator;
import app.yubble.core.depth.Kin;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Progress;
import app.yubble.core.subject.Quality;
import app.yubble.core.subject.Subject;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/**
 * Our own estimate: the subject network's features at 512 pixels, the depth head on them, and in the best quality the matte
 * at 1024 pixels. What the head was taught and what it cannot do stands in its model card beside the weights.
 */
public final class LearnedEstimator implements DepthEstimator {
    static final String NAME = "learned";
    static final String LICENCE = "encoder and matte MIT, depth head Apache-2.0";

    private static final String HEAD = "depth-head.onnx";
    private static final double FAR_PERCENTILE = 0.004;
    private static final double NEAR_PERCENTILE = 0.996;
    // Shares of the time, measured on two cores: features 0.7 s, head 0.1 s, fine matte 3.2 s.
    private static final double DRAFT_FEATURES = 0.85;
    private static final double BEST_FEATURES = 0.18;
    private static final double BEST_HEAD = 0.2;

    private final SubjectNetwork subject;
    private final Network head;

    public LearnedEstimator(SubjectNetwork subject) {
        this.subject = subject;
        this.head = Network.ofResource(LearnedEstimator.class, HEAD, 0.1);
    }

    @Override
    public String name() {
        return NAME;
    }

    @Override
    public DepthEstimate estimate(Picture picture, Quality quality, Progress progress) {
        boolean best = quality == Quality.BEST;
        SubjectNetwork.Features features =
                subject.features(picture, progress.part(0, best ? BEST_FEATURES : DRAFT_FEATURES));
        List<Network.Tensor> said = headOn(features, progress);
        Plane nearness = SubjectNetwork.shaped(
                Normalised.of(NetworkInput.plane(said.get(0)), FAR_PERCENTILE, NEAR_PERCENTILE), picture.size());
        Plane sure = SubjectNetwork.shaped(NetworkInput.plane(said.get(1)), picture.size());
        Subject found = best
                ? subject.find(picture, Quality.BEST, progress.part(BEST_HEAD, 1))
                : Subject.of(SubjectNetwork.shaped(features.matte(), picture.size()));
        progress.at(1);
        return new DepthEstimate(nearness, found, sure, kin(said.get(2)));
    }

    @Override
    public DepthEstimate improve(Picture picture, DepthEstimate draft, Progress progress) {
        return new DepthEstimate(
                draft.nearness(), subject.find(picture, Quality.BEST, progress), draft.sure(), draft.kin());
    }

    /** Loads all networks. */
    void load() {
        subject.load();
        head.load();
    }

    private static Kin kin(Network.Tensor tensor) {
        Plane tiles = new Plane(tensor.width(), Kin.PARTS * tensor.height());
        tensor.samples().rewind();
        tensor.samples().get(tiles.samples());
        return new Kin(tiles);
    }

    /** Nearness, how sure it is, and what places are like. */
    private List<Network.Tensor> headOn(SubjectNetwork.Features features, Progress progress) {
        Map<String, Network.Tensor> inputs = new LinkedHashMap<>();
        List<Network.Tensor> tensors = features.tensors();
        for (String name : head.inputs().keySet()) {
            inputs.put(
                    name,
                    switch (name) {
                        case "matte" -> DepthHead.matte(features.matte());
                        case "f128" -> tensors.get(0);
                        case "f64" -> tensors.get(1);
                        case "f32" -> tensors.get(2);
                        case "f16" -> tensors.get(3);
                        case "f8" -> tensors.get(4);
                        default -> throw new IllegalStateException("the depth head wants an unknown input " + name);
                    });
        }
        return head.run(inputs, List.of("disp", "sure", "kin"), done -> progress.at(BEST_FEATURES));
    }
}
