package app.yubble.bench;

import java.io.IOException;
import java.lang.management.ManagementFactory;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.EnumMap;
import java.util.Map;
import java.util.Set;
import jdk.jfr.Recording;
import jdk.jfr.consumer.RecordedEvent;
import jdk.jfr.consumer.RecordedFrame;
import jdk.jfr.consumer.RecordingFile;
import org.jspecify.annotations.Nullable;

/**
 * Where the time of some work goes: the stacks of all threads, looked at a hundred times a second by the flight recorder.
 *
 * @param shares of the samples in our own code, by part; they sum up to 1
 */
record Profile(Map<Part, Double> shares) {
    private static final Set<String> EVENTS = Set.of("jdk.ExecutionSample", "jdk.NativeMethodSample");
    private static final String OURS = "app.yubble.";
    private static final Duration PERIOD = Duration.ofMillis(10);

    /** What a preview is made of, in the order in which it is made. */
    enum Part {
        DECODE(
                "decode",
                "media.picture.PictureReader",
                "media.picture.DeepPng",
                "media.picture.Blocks",
                "media.picture.Samples"),
        MASKS("masks", "core.touchup", "core.mask", "core.pickout"),
        NEARNESS("nearness", "core.depth", "core.ladder", "core.subject"),
        DEFOCUS("defocus", "core.focus", "core.shape", "core.lens.RadiusField", "core.lens.Reach"),
        EDGES("edges", "core.lens.Edge", "core.lens.Pieces"),
        HIDDEN("hidden", "core.lens.Hidden", "core.lens.HoleFill", "core.lens.Patches"),
        LAMPS("lamps", "core.lens.Lamps", "core.lens.Glow", "core.lens.CutLight", "core.lens.Glints"),
        LAYERS(
                "layers",
                "core.lens.LayerCut",
                "core.lens.CellList",
                "core.lens.Listed",
                "core.lens.Colours",
                "core.lens.RadiusSteps",
                "core.lens.TilePixels",
                "core.lens.Lift"),
        BLUR("blur", "core.lens.DiscBlur", "core.lens.DiscShape", "core.lens.KernelField", "core.lens.DiscCache"),
        COMPOSE("compose", "core.lens"),
        FINISH("finish", "core.finish", "core.atmosphere"),
        EIGHT_BIT("8 bit", "media.picture.EightBit", "media.picture.CodedImage", "media.picture.ToneCurve"),
        ENCODE("encode", "media.picture"),
        OTHER("other", "");

        private final String title;
        private final String[] where;

        Part(String title, String... where) {
            this.title = title;
            this.where = where;
        }

        String title() {
            return title;
        }

        /** By the innermost of our classes that is not a plain tool for rasters. */
        static Part of(String className) {
            String name = className.substring(OURS.length());
            for (Part part : values()) {
                for (String start : part.where) {
                    if (name.startsWith(start)) {
                        return part;
                    }
                }
            }
            return OTHER;
        }
    }

    /** Runs {@code work} and looks at it. */
    static Profile of(Runnable work) throws IOException {
        Path file = Files.createTempFile("profile", ".jfr");
        try (Recording recording = new Recording()) {
            EVENTS.forEach(event -> recording.enable(event).withPeriod(PERIOD));
            recording.setToDisk(true);
            recording.start();
            work.run();
            recording.stop();
            recording.dump(file);
            return new Profile(counted(file));
        } finally {
            Files.delete(file);
        }
    }

    /** What the process has used of all cores, with compiler and collector of garbage; less than by the clock when others are at work. */
    static double usedMillis() {
        return ManagementFactory.getPlatformMXBean(com.sun.management.OperatingSystemMXBean.class)
                        .getProcessCpuTime()
                / 1e6;
    }

    private static Map<Part, Double> counted(Path file) throws IOException {
        Map<Part, Double> counts = new EnumMap<>(Part.class);
        int all = 0;
        try (RecordingFile events = new RecordingFile(file)) {
            while (events.hasMoreEvents()) {
                RecordedEvent event = events.readEvent();
                Part part = EVENTS.contains(event.getEventType().getName()) ? part(event) : null;
                if (part != null) {
                    counts.merge(part, 1.0, Double::sum);
                    all++;
                }
            }
        }
        double sum = Math.max(1, all);
        counts.replaceAll((part, count) -> count / sum);
        return counts;
    }

    private static @Nullable Part part(RecordedEvent event) {
        if (event.getStackTrace() == null) {
            return null;
        }
        for (RecordedFrame frame : event.getStackTrace().getFrames()) {
            String name = frame.getMethod().getType().getName();
            if (name.startsWith(OURS) && !name.startsWith(OURS + "core.raster.") && !name.startsWith(OURS + "bench.")) {
                return Part.of(name);
            }
        }
        return null;
    }
}
