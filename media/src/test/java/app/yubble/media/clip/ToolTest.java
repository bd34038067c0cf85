package app.yubble.media.clip;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.List;
import org.junit.jupiter.api.Test;

/** Programs that are missing, killed, hang, or have no room: whoever waits is told, and nothing is left running. */
class ToolTest {
    private static final Duration LONG = Duration.ofMinutes(1);

    private static Tool shell(String script, Duration most, Duration stalled) {
        return new Tool("sh", List.of("-c", script), most, stalled);
    }

    @Test
    void aMissingProgramIsNamedWithTheWayToGetIt() {
        try (Tool tool = new Tool("no-such-program", List.of("-i", "x"), LONG, LONG)) {
            assertThatThrownBy(tool::ended)
                    .isInstanceOf(ClipToolException.class)
                    .hasMessageContaining("clips need no-such-program")
                    .hasMessageContaining("apt-get install");
        }
    }

    @Test
    void aKilledProgramSaysSo() {
        try (Tool tool = shell("kill -9 $$", LONG, LONG)) {
            assertThatThrownBy(tool::ended)
                    .isInstanceOf(ClipToolException.class)
                    .hasMessageContaining("killed (signal 9)");
        }
    }

    @Test
    void whatTakesTooLongIsStopped() {
        try (Tool tool = shell("exec sleep 60", Duration.ofMillis(200), LONG)) {
            assertThatThrownBy(tool::ended).hasMessageContaining("took too long and was stopped");
        }
    }

    @Test
    void whatHangsWhileSomebodyWaitsIsStopped() throws IOException {
        Duration stalled = Duration.ofMillis(300);
        try (Tool tool = shell("exec sleep 60", LONG, stalled)) {
            int end = tool.waitingFor(() -> tool.out().read());
            assertThat(end).as("its end").isNegative();
            assertThatThrownBy(tool::ended).hasMessageContaining("took too long");
        }
    }

    @Test
    void whatNobodyWaitsForMayBeSlow() throws IOException, InterruptedException {
        try (Tool tool = shell("read line; echo $line", LONG, Duration.ofMillis(300))) {
            Thread.sleep(1000);
            tool.in().write("there\n".getBytes(StandardCharsets.US_ASCII));
            tool.in().flush();
            assertThat(tool.waitingFor(() -> tool.out().readAllBytes()))
                    .asString()
                    .isEqualTo("there\n");
            assertThat(tool.ended()).isTrue();
        }
    }

    @Test
    void nothingRunsOnAfterItIsClosed() throws IOException {
        long pid;
        try (Tool tool = shell("echo $$; exec sleep 60", LONG, LONG)) {
            pid = Long.parseLong(new BufferedReader(new InputStreamReader(tool.out(), StandardCharsets.US_ASCII))
                    .readLine()
                    .strip());
            assertThat(ProcessHandle.of(pid)).isPresent();
        }
        ProcessHandle.of(pid)
                .ifPresent(left -> assertThat(left.onExit())
                        .as("the program that was left")
                        .succeedsWithin(Duration.ofSeconds(5)));
    }

    @Test
    void aFullDiskIsTold() {
        List<String> pattern =
                List.of("-f", "lavfi", "-i", "testsrc=d=1:s=640x480", "-f", "rawvideo", "file:/dev/full");
        try (Tool tool = Tool.ffmpeg(LONG, pattern)) {
            assertThat(tool.ended()).isFalse();
            assertThat(tool.reason()).containsIgnoringCase("No space left");
        }
    }
}
