package app.yubble.bench.endure;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/** Runs one trial against a server of its own and tells what it came to; the exit code is 1 when it was not stood. */
public final class Endure {
    private static final int ROUNDS = 50;
    private static final int FILES = 10_000;
    private static final int PEOPLE = 100;
    private static final int SECONDS = 60;
    private static final int WRONG_USE = 2;
    private static final String EXAMPLES = "media/src/test/resources,demo/lens";

    private Endure() {}

    /** {@code kill}, {@code damage} or {@code people}, then {@code --server} with the jar and, if wanted, options. */
    public static void main(String[] arguments) throws IOException, InterruptedException {
        Map<String, String> options = new TreeMap<>();
        for (int i = 1; i + 1 < arguments.length; i += 2) {
            options.put(arguments[i], arguments[i + 1]);
        }
        if (arguments.length % 2 == 0 || !options.containsKey("--server")) {
            System.err.println(
                    "kill|damage|people --server JAR [--count N] [--heap 3g] [--seed N] [--examples FOLDER]");
            System.exit(WRONG_USE);
        }
        String java = Path.of(System.getProperty("java.home"), "bin", "java").toString();
        List<String> program = List.of(
                java,
                "-Xmx" + options.getOrDefault("--heap", "3g"),
                "-XX:+ExitOnOutOfMemoryError",
                "-Djdk.nio.maxCachedBufferSize=1048576",
                "-jar",
                options.get("--server"));
        long seed = Long.parseLong(options.getOrDefault("--seed", String.valueOf(System.nanoTime())));
        System.out.println("seed " + seed);
        String count = options.get("--count");
        String trial = arguments[0];
        boolean stood = on(program, host -> switch (trial) {
            case "kill" -> {
                KillTrial.Report report = new KillTrial(host, seed).run(number(count, ROUNDS));
                System.out.println(report);
                yield report.faults().isEmpty();
            }
            case "damage" -> {
                List<Path> examples = Stream.of(
                                options.getOrDefault("--examples", EXAMPLES).split(","))
                        .map(Path::of)
                        .toList();
                DamageTrial.Report report = new DamageTrial(host, examples, seed).run(number(count, FILES));
                System.out.println(report);
                yield report.faults().isEmpty();
            }
            case "people" -> {
                PeopleTrial.Report report = new PeopleTrial(host).run(number(count, PEOPLE), SECONDS);
                System.out.println(report);
                yield report.faults().isEmpty() && report.isFair();
            }
            default -> {
                System.err.println("there is no trial " + trial);
                yield false;
            }
        });
        System.exit(stood ? 0 : 1);
    }

    private static int number(@Nullable String told, int otherwise) {
        return told == null ? otherwise : Integer.parseInt(told);
    }

    /** A trial on a server. */
    @FunctionalInterface
    private interface Trial {
        boolean stood(Host host) throws IOException, InterruptedException;
    }

    private static boolean on(List<String> program, Trial trial) throws IOException, InterruptedException {
        Path data = Files.createTempDirectory("yubble-trial");
        try (Host host = new Host(program, data)) {
            boolean stood = trial.stood(host);
            if (!stood) {
                System.out.println("what the server said is in " + Files.copy(data.resolve("log"), kept()));
            }
            return stood;
        } finally {
            try (Stream<Path> all = Files.walk(data)) {
                for (Path each : all.sorted(Comparator.reverseOrder()).toList()) {
                    Files.deleteIfExists(each);
                }
            }
        }
    }

    private static Path kept() throws IOException {
        Path file = Files.createTempFile("yubble-trial", ".log");
        Files.delete(file);
        return file;
    }
}
