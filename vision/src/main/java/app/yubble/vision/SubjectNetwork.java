package app.yubble.vision;

import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Progress;
import app.yubble.core.raster.Resample;
import app.yubble.core.raster.Size;
import app.yubble.core.subject.Quality;
import app.yubble.core.subject.Subject;
import app.yubble.core.subject.SubjectFinder;
import java.util.List;
import java.util.Map;

/**
 * The subject's matte from a salient-object network (Qin et al., "Highly Accurate Dichotomous Image Segmentation", ECCV
 * 2022): at 512 pixels together with the encoder's features, at 1024 for the finest matte.
 */
public final class SubjectNetwork implements SubjectFinder {
    private static final String INPUT = "input";

    private final Network draft;
    private final Network fine;

    public SubjectNetwork(ModelFolder folder) {
        draft = Network.ofFile(folder.draftSubject(), 1);
        fine = Network.ofFile(folder.fineSubject(), 4);
    }

    /** The matte at 512 pixels and the features from fine to coarse. */
    public record Features(Plane matte, List<Network.Tensor> tensors) {}

    public Features features(Picture picture, Progress progress) {
        List<Network.Tensor> answer =
                run(draft, ModelFolder.DRAFT_SIDE, ModelFolder.MATTE_AND_FEATURES, picture, progress);
        return new Features(NetworkInput.plane(answer.get(0)), answer.subList(1, answer.size()));
    }

    @Override
    public Subject find(Picture picture, Quality quality, Progress progress) {
        Plane matte = quality == Quality.DRAFT
                ? features(picture, progress).matte()
                : NetworkInput.plane(run(fine, ModelFolder.FINE_SIDE, List.of(ModelFolder.MATTE), picture, progress)
                        .get(0));
        return Subject.of(shaped(matte, picture.size()));
    }

    void load() {
        draft.load();
        fine.load();
    }

    /** A square answer in the picture's shape: the side that was stretched least keeps its samples. */
    static Plane shaped(Plane square, Size picture) {
        return Resample.toSize(square, picture.fitting(square.width()));
    }

    private static List<Network.Tensor> run(
            Network network, int side, List<String> outputs, Picture picture, Progress progress) {
        Network.Tensor input = NetworkInput.planar(picture, new Size(side, side), NetworkInput.Scaling.CENTRED);
        return network.run(Map.of(INPUT, input), outputs, progress);
    }
}
