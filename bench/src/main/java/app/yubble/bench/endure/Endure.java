package app.yubble.bench.endure;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.Stream;

/** Runs one trial against a server of its own and tells what it came to; the exit code is 1 when it was not stood. */
public final class Endure {
    private static final int ROUNDS = 50;
    private static final int FILES = 10_000;
    private static final int PEOPLE = 100;
    private static final int SECONDS = 60;
    private static final int NODES = 3;
    private static final int WRONG_USE = 2;
    private static final String EXAMPLES = "media/src/test/resources,demo/lens";
    /** As the launcher starts it. */
    private static final List<String> JAVA =
            List.of("-XX:+ExitOnOutOfMemoryError", "-Djdk.nio.maxCachedBufferSize=1048576");

    private Endure() {}

    /** What a trial came to. */
    public record Outcome(boolean stood, String told) {}

    /** {@code kill}, {@code damage}, {@code people} or {@code nodes}, and options of which {@code --server}, the jar, is needed. */
    public static void main(String[] arguments) throws IOException, InterruptedException {
        Map<String, String> options = new TreeMap<>();
        for (int i = 1; i + 1 < arguments.length; i += 2) {
            options.put(arguments[i], arguments[i + 1]);
        }
        if (arguments.length % 2 == 0 || !options.containsKey("--server")) {
            System.err.println(
                    "kill|damage|people|nodes [--count N] [--seconds N] [--heap 3g] [--seed N] [--examples FOLDERS]"
                            + " [--nodes N] [--store JAR] [--before JAR]");
            System.exit(WRONG_USE);
        }
        List<String> program =
                program(options.getOrDefault("--heap", "3g"), List.of("-jar", options.getOrDefault("--server", "")));
        options.putIfAbsent("--seed", String.valueOf(System.nanoTime()));
        System.out.println("seed " + options.get("--seed"));
        Outcome outcome = run(arguments[0], program, options);
        System.out.println(outcome.told());
        System.exit(outcome.stood() ? 0 : 1);
    }

    /**
     * The command that starts a server, up to its own options.
     *
     * @param what Java is to run
     */
    public static List<String> program(String heap, List<String> what) {
        List<String> out = new ArrayList<>();
        out.add(Path.of(System.getProperty("java.home"), "bin", "java").toString());
        out.add("-Xmx" + heap);
        out.addAll(JAVA);
        out.addAll(what);
        return out;
    }

    /** @param options as on the command line */
    public static Outcome run(String trial, List<String> program, Map<String, String> options)
            throws IOException, InterruptedException {
        long seed = Long.parseLong(options.getOrDefault("--seed", "1"));
        if (trial.equals("nodes")) {
            return onNodes(program, options, seed);
        }
        return on(program, host -> switch (trial) {
            case "kill" -> {
                KillTrial.Report report = new KillTrial(host, seed).run(count(options, ROUNDS));
                yield new Outcome(report.faults().isEmpty(), report.toString());
            }
            case "damage" -> {
                List<Path> examples = Stream.of(
                                options.getOrDefault("--examples", EXAMPLES).split(","))
                        .map(Path::of)
                        .toList();
                DamageTrial.Report report = new DamageTrial(host, examples, seed).run(count(options, FILES));
                yield new Outcome(report.faults().isEmpty(), report.toString());
            }
            case "people" -> {
                int seconds = Integer.parseInt(options.getOrDefault("--seconds", String.valueOf(SECONDS)));
                PeopleTrial.Report report = new PeopleTrial(host).run(count(options, PEOPLE), seconds);
                yield new Outcome(report.faults().isEmpty() && report.isFair(), report.toString());
            }
            default -> new Outcome(false, "there is no trial " + trial);
        });
    }

    private static Outcome onNodes(List<String> program, Map<String, String> options, long seed)
            throws IOException, InterruptedException {
        Path folder = Files.createTempDirectory("yubble-trial");
        String store = options.get("--store");
        String before = options.get("--before");
        NodesTrial.Report report;
        try (NodesTrial trial = new NodesTrial(
                program,
                before == null ? null : program(options.getOrDefault("--heap", "1g"), List.of("-jar", before)),
                Integer.parseInt(options.getOrDefault("--nodes", String.valueOf(NODES))),
                store == null ? null : Path.of(store),
                folder,
                seed)) {
            report = trial.run(count(options, ROUNDS));
        }
        if (!report.faults().isEmpty()) {
            return new Outcome(false, report + "\nwhat the nodes said is in " + folder);
        }
        removeAll(folder);
        return new Outcome(true, report.toString());
    }

    private static int count(Map<String, String> options, int otherwise) {
        return Integer.parseInt(options.getOrDefault("--count", String.valueOf(otherwise)));
    }

    /** A trial on a server. */
    @FunctionalInterface
    private interface Trial {
        Outcome of(Host host) throws IOException, InterruptedException;
    }

    private static Outcome on(List<String> program, Trial trial) throws IOException, InterruptedException {
        Path data = Files.createTempDirectory("yubble-trial");
        try (Host host = new Host(program, data)) {
            Outcome outcome = trial.of(host);
            if (outcome.stood()) {
                return outcome;
            }
            Path log = Files.createTempFile("yubble-trial", ".log");
            Files.write(log, Files.readAllBytes(host.log().toPath()));
            return new Outcome(false, outcome.told() + "\nwhat the server said is in " + log);
        } finally {
            removeAll(data);
        }
    }

    private static void removeAll(Path folder) throws IOException {
        try (Stream<Path> all = Files.walk(folder)) {
            for (Path each : all.sorted(Comparator.reverseOrder()).toList()) {
                Files.deleteIfExists(each);
            }
        }
    }
}
