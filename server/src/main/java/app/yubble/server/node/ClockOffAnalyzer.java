package app.yubble.server.node;

import org.springframework.boot.diagnostics.AbstractFailureAnalyzer;
import org.springframework.boot.diagnostics.FailureAnalysis;

/** Says at the start that the clock is wrong. */
final class ClockOffAnalyzer extends AbstractFailureAnalyzer<ClockOffException> {
    /** Made by the framework. */
    ClockOffAnalyzer() {}

    @Override
    protected FailureAnalysis analyze(Throwable root, ClockOffException cause) {
        return new FailureAnalysis(
                String.valueOf(cause.getMessage()),
                "Set the clocks of all nodes and of the database by the same time service.",
                cause);
    }
}
