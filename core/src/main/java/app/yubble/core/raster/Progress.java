package app.yubble.core.raster;

import java.util.concurrent.CancellationException;

/**
 * Told how far a long computation has come, from any thread, and asked whether it should go on.
 *
 * <p>An implementation stops the work by throwing {@link CancellationException}.
 */
@FunctionalInterface
public interface Progress {
    Progress NONE = done -> {};

    /** Called with the share that is done, in [0,1]; calls may come out of order. */
    void at(double done);

    /** The same progress seen by a part of the work that runs from {@code from} to {@code to}. */
    default Progress part(double from, double to) {
        return done -> at(from + (to - from) * done);
    }
}
