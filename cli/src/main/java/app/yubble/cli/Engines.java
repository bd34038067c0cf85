package app.yubble.cli;

import app.yubble.core.depth.DepthEstimator;
import app.yubble.core.depth.LayoutEstimator;
import app.yubble.core.depth.RampEstimator;

/** Depth estimators by the names of the command line. */
final class Engines {
    private Engines() {}

    static DepthEstimator named(String name) {
        return switch (name) {
            case "auto", "cues", "layout" -> new LayoutEstimator();
            case "ramp" -> new RampEstimator();
            default ->
                throw new WrongUseException("--engine: there is no \"" + name + "\"; there are auto, cues and ramp");
        };
    }
}
