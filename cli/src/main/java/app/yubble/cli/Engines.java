package app.yubble.cli;

import app.yubble.core.depth.DepthEstimator;
import app.yubble.core.subject.FaceFinder;
import app.yubble.vision.DepthEngines;
import app.yubble.vision.FaceNetworks;
import app.yubble.vision.ModelFolder;
import app.yubble.vision.ModelHashes;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Iterator;
import java.util.List;

/** Depth estimators by the names of the command line. The launcher says where the models folder is. */
final class Engines {
    private static final String FOLDER = "yubble.models";
    private static final String CUES = "cues";

    private Engines() {}

    /** Those that there are on this machine. */
    static final class Names implements Iterable<String> {
        @Override
        public Iterator<String> iterator() {
            List<String> names = new ArrayList<>(List.of(DepthEngines.AUTO, CUES));
            names.addAll(engines().names());
            return names.iterator();
        }
    }

    static DepthEstimator named(String name) {
        DepthEngines engines = engines();
        String wanted = name.equals(CUES) ? "layout" : name;
        return engines.named(wanted)
                .orElseThrow(() -> new WrongUseException(
                        "--engine: there is no \"" + name + "\"; there are " + String.join(", ", new Names()) + "."));
    }

    static DepthEngines engines() {
        ModelHashes.require(folder());
        return new DepthEngines(folder());
    }

    /** Finds faces where set-up has brought the networks. */
    static FaceFinder faces() {
        return Faces.FINDER;
    }

    /** Made when it is first asked for. */
    private static final class Faces {
        static final FaceFinder FINDER = folder().hasFaceNetworks() ? new FaceNetworks(folder()) : FaceFinder.NONE;
    }

    private static ModelFolder folder() {
        return new ModelFolder(Path.of(System.getProperty(FOLDER, "var/models")));
    }
}
