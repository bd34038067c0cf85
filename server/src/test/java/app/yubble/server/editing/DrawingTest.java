package app.yubble.server.editing;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mockito.Mockito.mock;

import app.yubble.server.memory.MemoryGate;
import io.micrometer.core.instrument.simple.SimpleMeterRegistry;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class DrawingTest {
    private final SimpleMeterRegistry meters = new SimpleMeterRegistry();
    private final Drawing drawing = new Drawing(mock(MemoryGate.class), meters);

    @ParameterizedTest
    @CsvSource({"0, 640", "4, 640", "5, 452", "8, 452", "16, 320", "40, 160", "200, 160"})
    @Timeout(20)
    void aDraftIsSmallerTheMorePeopleWaitDownToWhatStillShowsSomething(int people, int side) {
        try (Crowd crowd = new Crowd(drawing, meters)) {
            crowd.grow(people);
            assertThat(drawing.hurried(640)).isEqualTo(side);
            assertThat(drawing.hurried(100)).isEqualTo(100);
        }
    }
}
