package app.yubble.bench;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatCode;

import app.yubble.bench.fuzz.Parser;
import java.io.IOException;
import java.lang.management.ManagementFactory;
import java.lang.management.ThreadMXBean;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HexFormat;
import java.util.List;
import java.util.Random;
import java.util.stream.Stream;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

/** Damaged and hostile input of every kind is taken or refused in our own words, and soon. */
class ParserTest {
    private static final Path FOUND = Path.of("src/test/resources/found");
    private static final Path WHOLE = Path.of("../media/src/test/resources");
    private static final ThreadMXBean TIMES = ManagementFactory.getThreadMXBean();
    private static final long MILLIS = Long.getLong("yubble.fuzz-millis", 1500);

    private static List<byte[]> files(Path folder) throws IOException {
        List<byte[]> all = new ArrayList<>();
        try (Stream<Path> paths = Files.walk(folder)) {
            for (Path each : paths.filter(Files::isRegularFile).sorted().toList()) {
                all.add(Files.readAllBytes(each));
            }
        }
        return all;
    }

    /** What a fuzzer has found once is never found again. */
    @ParameterizedTest
    @EnumSource(Parser.class)
    @Timeout(10)
    void whatWasFoundDoesNoHarm(Parser parser) throws IOException {
        for (byte[] each : files(FOUND)) {
            assertThatCode(() -> parser.takes(each)).doesNotThrowAnyException();
        }
    }

    @ParameterizedTest
    @EnumSource(Parser.class)
    void damagedInputIsTakenOrRefused(Parser parser) throws IOException {
        Random random = new Random(parser.ordinal());
        List<byte[]> seeds = files(WHOLE);
        long end = System.nanoTime() + MILLIS * 1_000_000;
        int taken = 0;
        int refused = 0;
        while (System.nanoTime() < end) {
            byte[] input = damaged(seeds.get(random.nextInt(seeds.size())), random);
            long start = TIMES.getCurrentThreadCpuTime();
            if (parser.takes(input)) {
                taken++;
            } else {
                refused++;
            }
            assertThat((TIMES.getCurrentThreadCpuTime() - start) / 1_000_000)
                    .as("milliseconds of %s", HexFormat.of().formatHex(input, 0, Math.min(300, input.length)))
                    .isLessThan(4000);
        }
        assertThat(taken + refused).isGreaterThan(20);
    }

    private static byte[] damaged(byte[] whole, Random random) {
        byte[] out = random.nextInt(4) > 0 ? whole.clone() : Arrays.copyOf(whole, 1 + random.nextInt(whole.length));
        for (int i = random.nextInt(8); i > 0; i--) {
            int reach = random.nextBoolean() ? Math.min(out.length, 400) : out.length;
            out[random.nextInt(reach)] = (byte) (random.nextInt(3) > 0 ? random.nextInt() : 0xff);
        }
        return out;
    }
}
