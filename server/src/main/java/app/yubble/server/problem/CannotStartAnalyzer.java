package app.yubble.server.problem;

import org.springframework.boot.diagnostics.AbstractFailureAnalyzer;
import org.springframework.boot.diagnostics.FailureAnalysis;

/** Says at the start what is wrong, instead of where in the program it was found. */
final class CannotStartAnalyzer extends AbstractFailureAnalyzer<CannotStartException> {
    /** Made by the framework. */
    CannotStartAnalyzer() {}

    @Override
    protected FailureAnalysis analyze(Throwable root, CannotStartException cause) {
        return new FailureAnalysis(String.valueOf(cause.getMessage()), cause.advice(), cause);
    }
}
