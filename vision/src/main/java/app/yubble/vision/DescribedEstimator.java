package app.yubble.vision;

import app.yubble.core.depth.DepthEstimate;
import app.yubble.core.depth.DepthEstimator;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Progress;
import app.yubble.core.subject.Quality;
import app.yubble.core.subject.Subject;
import app.yubble.core.subject.SubjectFinder;
import java.nio.FloatBuffer;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/** A depth network with a descriptor; the subject's matte comes from our own network when it is there. */
final class DescribedEstimator implements DepthEstimator {
    private static final double FAR_PERCENTILE = 0.002;
    private static final double NEAR_PERCENTILE = 0.998;
    private static final float LEAST_DEPTH = 1e-3f;

    private final NetworkDescriptor descriptor;
    private final Network network;
    private final @Nullable SubjectFinder subjects;

    DescribedEstimator(NetworkDescriptor descriptor, Network network, @Nullable SubjectFinder subjects) {
        this.descriptor = descriptor;
        this.network = network;
        this.subjects = subjects;
    }

    @Override
    public String name() {
        return descriptor.name();
    }

    @Override
    public DepthEstimate estimate(Picture picture, Quality quality, Progress progress) {
        double own = subjects == null ? 1 : 0.6;
        Network.Tensor answer = network.run(
                        Map.of(descriptor.input().name(), input(picture)),
                        List.of(descriptor.output().name()),
                        progress.part(0, own))
                .get(0);
        Plane nearness = SubjectNetwork.shaped(scaled(plane(answer)), picture.size());
        Subject subject = subjects == null ? null : subjects.find(picture, quality, progress.part(own, 1));
        progress.at(1);
        return new DepthEstimate(nearness, subject);
    }

    @Override
    public DepthEstimate improve(Picture picture, DepthEstimate draft, Progress progress) {
        return subjects == null
                ? draft
                : new DepthEstimate(draft.nearness(), subjects.find(picture, Quality.BEST, progress));
    }

    private Network.Tensor input(Picture picture) {
        NetworkDescriptor.Input wanted = descriptor.input();
        Network.Tensor planar = NetworkInput.planar(
                picture, wanted.size(), new NetworkInput.Scaling(wanted.mean(), wanted.deviation()));
        if (wanted.layout() == NetworkDescriptor.Layout.NCHW) {
            return planar;
        }
        int pixels = wanted.width() * wanted.height();
        FloatBuffer samples = NetworkInput.floats(3L * pixels);
        for (int i = 0; i < pixels; i++) {
            for (int c = 0; c < 3; c++) {
                samples.put(planar.samples().get(c * pixels + i));
            }
        }
        return new Network.Tensor(wanted.shape(), samples);
    }

    private Plane plane(Network.Tensor answer) {
        int width = answer.width();
        int height = answer.height();
        // Channels last: the two sides are not the last two dimensions.
        if (answer.shape().length == 4 && answer.shape()[3] == 1) {
            height = (int) answer.shape()[1];
            width = (int) answer.shape()[2];
        }
        if (answer.shape().length < 2
                || (long) width * height != answer.samples().rewind().remaining()) {
            throw new IllegalStateException(
                    "the network " + descriptor.name() + " does not answer with one map: its output has the shape "
                            + java.util.Arrays.toString(answer.shape()));
        }
        Plane plane = new Plane(width, height);
        answer.samples().get(plane.samples());
        return plane;
    }

    private Plane scaled(Plane raw) {
        float[] samples = raw.samples();
        for (int i = 0; i < samples.length; i++) {
            float value = switch (descriptor.output().meaning()) {
                case NEARNESS -> samples[i];
                case DEPTH -> 1 / Math.max(LEAST_DEPTH, samples[i]);
                case LOG_DEPTH -> (float) Math.exp(-samples[i]);
            };
            if (!Float.isFinite(value)) {
                throw new IllegalStateException(
                        "the network " + descriptor.name() + " answers with values that are no numbers");
            }
            samples[i] = value;
        }
        return Normalised.of(raw, FAR_PERCENTILE, NEAR_PERCENTILE);
    }
}
