package app.yubble.cli;

import app.yubble.core.follow.Put;
import app.yubble.core.follow.TrackPoint;
import app.yubble.core.follow.Tracker;
import app.yubble.core.raster.Size;
import app.yubble.vision.FaceEyes;
import app.yubble.vision.LucasKanade;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** Follows a point through a clip. */
@Command(
        name = "track",
        description = "Writes where a point of a clip is at every frame.",
        mixinStandardHelpOptions = true)
final class TrackCommand implements Callable<Integer> {
    @Spec
    private CommandSpec spec;

    @Parameters(paramLabel = "CLIP", description = "MP4, MOV, MKV or WebM")
    private Path clip;

    @Option(
            names = "--point",
            paramLabel = "X,Y",
            required = true,
            description = "in pixels of the upright frame; the middle of the first is 0.5,0.5")
    private String point;

    @Option(names = "--frame", defaultValue = "1", description = "where the point is there, from 1")
    private int frame;

    @Option(names = "--eye", description = "it is an eye, which is found again by the face around it")
    private boolean eye;

    @Option(names = "-o", paramLabel = "OUT.json", required = true, description = "one line for each frame")
    private Path out;

    @Override
    public Integer call() throws Exception {
        double[] place = place(point, "--point");
        try (ClipWork work = ClipWork.open(clip, out, spec.commandLine().getErr())) {
            Size size = work.sheet().info().size();
            int at = ClipCommand.frame(frame, 1, "--frame", work.sheet()) - 1;
            requireInside(place, size, "--point");
            List<TrackPoint> track = tracked(work, List.of(put(work, at, place)), eye);
            Inputs.write(out, to -> to.write(json(track, size).getBytes(StandardCharsets.UTF_8)));
        }
        return 0;
    }

    /** Two numbers with a comma between them. */
    static double[] place(String text, String option) {
        String[] sides = text.split(",", -1);
        try {
            if (sides.length == 2) {
                return new double[] {Double.parseDouble(sides[0]), Double.parseDouble(sides[1])};
            }
        } catch (NumberFormatException none) {
            // Told below.
        }
        throw new WrongUseException(option + ": must be X,Y in pixels, found " + text);
    }

    static void requireInside(double[] place, Size size, String option) {
        if (!(place[0] >= 0 && place[1] >= 0 && place[0] <= size.width() && place[1] <= size.height())) {
            throw new WrongUseException(
                    option + ": must lie in the picture of " + size + ", found " + place[0] + "," + place[1]);
        }
    }

    /** @param text X,Y in pixels of the full frame, and @F after it when that is not the first one */
    static Put put(String text, ClipWork work, String option) {
        String[] parts = text.split("@", 2);
        double[] place = place(parts[0], option);
        requireInside(place, work.sheet().info().size(), option);
        try {
            int number = parts.length == 2 ? Integer.parseInt(parts[1].strip()) : 1;
            return put(work, ClipCommand.frame(number, 1, option, work.sheet()) - 1, place);
        } catch (NumberFormatException none) {
            throw new WrongUseException(option + ": must be X,Y or X,Y@FRAME, found " + text);
        }
    }

    /** @param place in pixels of the full frame */
    static Put put(ClipWork work, int frame, double[] place) {
        Size full = work.sheet().info().size();
        return new Put(work.sheet().micros(frame) / 1e6, place[0] / full.width(), place[1] / full.height());
    }

    /**
     * @param eye whether it is an eye, which is found again by its face
     * @return in shares of the picture's sides
     */
    static List<TrackPoint> tracked(ClipWork work, List<Put> puts, boolean eye) {
        Tracker tracker = new Tracker(new LucasKanade(), eye ? new FaceEyes(Engines.faces()) : null);
        return work.small().track(tracker, puts, work.told("following", 0, 1));
    }

    private static String json(List<TrackPoint> track, Size full) {
        List<String> lines = new ArrayList<>();
        for (int i = 0; i < track.size(); i++) {
            TrackPoint each = track.get(i);
            lines.add(String.format(
                    Locale.ROOT,
                    "{\"frame\":%d,\"x\":%.2f,\"y\":%.2f,\"visible\":%b,\"sure\":%b}",
                    i + 1,
                    each.x() * full.width(),
                    each.y() * full.height(),
                    each.visible(),
                    each.sure()));
        }
        return "[" + String.join(",\n", lines) + "]\n";
    }
}
