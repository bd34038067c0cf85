package app.yubble.vision;

import app.yubble.core.depth.DepthEstimator;
import app.yubble.core.depth.LayoutEstimator;
import app.yubble.core.depth.RampEstimator;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/**
 * Every estimator there is: our own, the other networks of the models folder, and those that need no network. The networks
 * keep their sessions, so make one of these and keep it.
 */
public final class DepthEngines {
    public static final String AUTO = "auto";

    private static final String DESCRIPTOR = ".json";
    private static final int MOST_NETWORKS = 50;
    private static final double EXPECTED_SECONDS = 3;

    private final Map<String, DepthEstimator> estimators = new LinkedHashMap<>();
    private final List<Installed> installed = new ArrayList<>();
    private final boolean learned;

    /**
     * What an installation has.
     *
     * @param about one line for people
     * @param licence of its weights; empty for the estimators that need none
     * @param problem why it cannot be used; empty when it can
     */
    public record Installed(String name, String about, String licence, String problem) {}

    public DepthEngines(ModelFolder folder) {
        learned = folder.hasSubjectNetwork();
        SubjectNetwork subjects = learned ? new SubjectNetwork(folder) : null;
        if (subjects != null) {
            add(new LearnedEstimator(subjects), "Our own network, taught on rendered scenes", LearnedEstimator.LICENCE);
        }
        add(new LayoutEstimator(), "From the layout of the picture, without a network", "");
        add(new RampEstimator(), "Nearer downwards, nothing else", "");
        for (Path descriptor : descriptors(folder.depthNetworks())) {
            addDescribed(descriptor, subjects);
        }
    }

    private void add(DepthEstimator estimator, String about, String licence) {
        estimators.put(estimator.name(), estimator);
        installed.add(new Installed(estimator.name(), about, licence, ""));
    }

    private static List<Path> descriptors(Path folder) {
        if (!Files.isDirectory(folder)) {
            return List.of();
        }
        try (var files = Files.list(folder)) {
            return files.filter(file -> file.toString().endsWith(DESCRIPTOR))
                    .sorted()
                    .limit(MOST_NETWORKS)
                    .toList();
        } catch (IOException unreadable) {
            return List.of();
        }
    }

    private void addDescribed(Path path, @Nullable SubjectNetwork subjects) {
        String fileName = path.getFileName().toString();
        try {
            NetworkDescriptor descriptor = NetworkDescriptor.read(path);
            if (estimators.containsKey(descriptor.name()) || descriptor.name().equals(AUTO)) {
                throw new NetworkDescriptor.BadDescriptorException(
                        "there already is a network named " + descriptor.name());
            }
            Path onnx = path.resolveSibling(descriptor.file());
            Network network = Network.ofFile(onnx, EXPECTED_SECONDS);
            descriptor.check(onnx, network);
            add(new DescribedEstimator(descriptor, network, subjects), descriptor.about(), descriptor.licence());
        } catch (NetworkDescriptor.BadDescriptorException fault) {
            installed.add(new Installed(fileName, "", "", fileName + ": " + fault.getMessage()));
        }
    }

    /** False when set-up has not brought the networks: depth then comes from the layout of the picture. */
    public boolean hasLearned() {
        return learned;
    }

    /** All of them, with those that cannot be used and why. */
    public List<Installed> installed() {
        return List.copyOf(installed);
    }

    /** Those that can be used. */
    public List<String> names() {
        return new ArrayList<>(estimators.keySet());
    }

    /** Loads our own networks, so that the first estimate does not wait for it. */
    public void warmUp() {
        if (automatic() instanceof LearnedEstimator own) {
            own.load();
        }
    }

    /** The best that is there. */
    public DepthEstimator automatic() {
        return estimators.values().iterator().next();
    }

    /** {@code auto} is {@link #automatic}. */
    public Optional<DepthEstimator> named(String name) {
        return name.equals(AUTO) ? Optional.of(automatic()) : Optional.ofNullable(estimators.get(name));
    }
}
