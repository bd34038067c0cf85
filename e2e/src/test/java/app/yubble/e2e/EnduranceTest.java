package app.yubble.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import app.yubble.bench.endure.Endure;
import java.io.IOException;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** The trials of {@code ./yubble endure}, shorter. */
class EnduranceTest {
    @ParameterizedTest
    @CsvSource({"kill, 5, 0", "damage, 500, 0", "people, 10, 10"})
    void theServerStands(String trial, String count, String seconds) throws IOException, InterruptedException {
        List<String> program = Endure.program(
                "2g", List.of("-cp", System.getProperty("java.class.path"), "app.yubble.server.YubbleServer"));
        Endure.Outcome outcome = Endure.run(
                trial,
                program,
                Map.of(
                        "--count", count,
                        "--seconds", seconds,
                        "--examples", "../media/src/test/resources,../demo/lens"));
        assertThat(outcome.stood()).as(outcome.told()).isTrue();
    }
}
