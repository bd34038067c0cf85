package app.yubble.cli;

import app.yubble.core.depth.DepthEstimator;
import picocli.CommandLine.Option;

/** Which estimator makes depth. */
final class EngineOption {
    @Option(
            names = "--engine",
            defaultValue = "auto",
            completionCandidates = Engines.Names.class,
            description = "for estimated depth: ${COMPLETION-CANDIDATES}")
    private String name;

    DepthEstimator estimator() {
        return Engines.named(name);
    }

    @Override
    public String toString() {
        return name;
    }
}
