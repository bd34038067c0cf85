package app.yubble.cli;

import app.yubble.core.depth.DepthEstimator;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Option;

/** Which estimator makes depth. */
final class EngineOption {
    @Option(
            names = "--engine",
            defaultValue = "auto",
            completionCandidates = Engines.Names.class,
            description = "for estimated depth: ${COMPLETION-CANDIDATES}")
    private String name;

    private @Nullable DepthEstimator estimator;

    /** Made once: it keeps its networks. */
    DepthEstimator estimator() {
        if (estimator == null) {
            estimator = Engines.named(name);
        }
        return estimator;
    }

    @Override
    public String toString() {
        return name;
    }
}
