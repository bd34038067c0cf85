package app.yubble.server.storage;

import org.springframework.boot.diagnostics.AbstractFailureAnalyzer;
import org.springframework.boot.diagnostics.FailureAnalysis;

/** Says at the start what is wrong with the store, instead of where in the program it was found. */
final class StoreUnusableAnalyzer extends AbstractFailureAnalyzer<StoreUnusableException> {
    /** Made by the framework. */
    StoreUnusableAnalyzer() {}

    @Override
    protected FailureAnalysis analyze(Throwable root, StoreUnusableException cause) {
        return new FailureAnalysis(
                String.valueOf(cause.getMessage()), "Look at the settings that begin with yubble.store.", cause);
    }
}
