package app.yubble.cli;

import app.yubble.core.depth.DepthEstimator;
import app.yubble.vision.DepthEngines;
import app.yubble.vision.ModelFolder;
import java.nio.file.Path;

/** Depth estimators by the names of the command line. The launcher says where the models folder is. */
final class Engines {
    private static final String FOLDER = "yubble.models";

    private Engines() {}

    static DepthEstimator named(String name) {
        DepthEngines engines = engines();
        String wanted = name.equals("cues") ? "layout" : name;
        return engines.named(wanted)
                .orElseThrow(() -> new WrongUseException("--engine: there is no \"" + name
                        + "\"; there are auto, cues, " + String.join(", ", engines.names()) + "."));
    }

    static DepthEngines engines() {
        return new DepthEngines(new ModelFolder(Path.of(System.getProperty(FOLDER, "var/models"))));
    }
}
