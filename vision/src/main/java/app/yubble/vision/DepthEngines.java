package app.yubble.vision;

import app.yubble.core.depth.DepthEstimator;
import app.yubble.core.depth.LayoutEstimator;
import app.yubble.core.depth.RampEstimator;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * Every estimator there is: our own, the other networks of the models folder, and those that need no network. The networks
 * keep their sessions, so make one of these and keep it.
 */
public final class DepthEngines {
    public static final String AUTO = "auto";

    private static final Map<String, String> ABOUT = Map.of(
            LearnedEstimator.NAME,
            "Our own network: subject and depth, taught on rendered scenes",
            "layout",
            "From the layout of the picture, without a network",
            "ramp",
            "Nearer downwards, nothing else");

    private final Map<String, DepthEstimator> estimators = new LinkedHashMap<>();
    private final boolean learned;

    public DepthEngines(ModelFolder folder) {
        learned = folder.hasSubjectNetwork();
        if (learned) {
            add(new LearnedEstimator(new SubjectNetwork(folder)));
        }
        add(new LayoutEstimator());
        add(new RampEstimator());
    }

    private void add(DepthEstimator estimator) {
        estimators.put(estimator.name(), estimator);
    }

    /**
     * What an installation has.
     *
     * @param about one line for people
     * @param licence of its weights; empty for the estimators that need none
     * @param problem why it cannot be used; empty when it can
     */
    public record Installed(String name, String about, String licence, String problem) {}

    public List<Installed> installed() {
        List<Installed> all = new ArrayList<>();
        for (DepthEstimator estimator : estimators.values()) {
            all.add(new Installed(
                    estimator.name(),
                    ABOUT.getOrDefault(estimator.name(), ""),
                    estimator instanceof LearnedEstimator ? LearnedEstimator.LICENCE : "",
                    ""));
        }
        return all;
    }

    /** Loads our own networks, so that the first estimate does not wait for it. */
    public void warmUp() {
        if (automatic() instanceof LearnedEstimator own) {
            own.load();
        }
    }

    /** False when set-up has not brought the networks: depth then comes from the layout of the picture. */
    public boolean hasLearned() {
        return learned;
    }

    public List<String> names() {
        return new ArrayList<>(estimators.keySet());
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
