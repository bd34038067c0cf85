package app.yubble.server.node;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.mockito.ArgumentMatchers.anyString;
import static org.mockito.ArgumentMatchers.eq;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import app.yubble.server.problem.CannotStartException;
import java.time.Duration;
import java.time.Instant;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.springframework.jdbc.core.JdbcTemplate;

class NodeClockTest {
    private static final Instant DATABASE = Instant.parse("2026-05-03T10:00:00Z");

    private static NodeClock clock(long secondsAhead) {
        JdbcTemplate database = mock();
        when(database.queryForObject(anyString(), eq(Double.class))).thenReturn((double) DATABASE.getEpochSecond());
        return new NodeClock(
                database,
                new NodeProperties(null, Role.ALL, Duration.ofSeconds(10)),
                () -> DATABASE.plusSeconds(secondsAhead));
    }

    @ParameterizedTest
    @CsvSource({"0,''", "9,''", "-9,''", "3600,3600 s ahead of", "-3600,3600 s behind"})
    void aClockThatIsOffIsTold(long ahead, String told) {
        NodeClock clock = clock(ahead);
        if (told.isEmpty()) {
            assertThat(clock.problem()).isEmpty();
            clock.require();
        } else {
            assertThat(clock.problem()).contains(told);
            assertThatThrownBy(clock::require).isInstanceOf(CannotStartException.class);
        }
    }
}
