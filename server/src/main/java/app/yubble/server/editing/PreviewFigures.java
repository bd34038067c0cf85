package app.yubble.server.editing;

import app.yubble.core.raster.Size;
import app.yubble.server.shoot.Shots;
import io.micrometer.core.instrument.Counter;
import io.micrometer.core.instrument.DistributionSummary;
import io.micrometer.core.instrument.MeterRegistry;
import io.micrometer.core.instrument.Timer;
import java.util.concurrent.TimeUnit;
import org.springframework.stereotype.Component;

/** How many previews were drawn, how long they took and how large they were, and how many were not wanted any more. */
@Component
class PreviewFigures {
    /** Longer side of what is drawn while something is dragged, at most. */
    private static final int DRAFT = 800;

    private final MeterRegistry meters;
    private final Counter superseded;
    private final DistributionSummary bytes;

    PreviewFigures(MeterRegistry meters) {
        this.meters = meters;
        superseded = meters.counter("yubble.preview.superseded");
        bytes = DistributionSummary.builder("yubble.preview.size")
                .baseUnit("bytes")
                .register(meters);
    }

    /** @param nanos from the request to the answer */
    void drawn(Size size, int length, long nanos) {
        String kind = size.longSide() <= DRAFT ? "draft" : size.longSide() <= Shots.PROXY_SIDE ? "fitted" : "large";
        Timer.builder("yubble.preview")
                .tag("kind", kind)
                .publishPercentiles(0.5, 0.95)
                .register(meters)
                .record(nanos, TimeUnit.NANOSECONDS);
        bytes.record(length);
    }

    /** The page asked for a newer one. */
    void superseded() {
        superseded.increment();
    }
}
