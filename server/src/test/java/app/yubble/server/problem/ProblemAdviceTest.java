package app.yubble.server.problem;

import static org.assertj.core.api.Assertions.assertThat;

import io.micrometer.core.instrument.simple.SimpleMeterRegistry;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.sql.SQLException;
import org.junit.jupiter.api.Test;
import org.springframework.dao.DataAccessResourceFailureException;
import org.springframework.http.ProblemDetail;
import org.springframework.util.unit.DataSize;
import org.springframework.web.multipart.MultipartException;

/** Faults that cannot be brought about from outside. */
class ProblemAdviceTest {
    private final ProblemAdvice advice =
            new ProblemAdvice(DataSize.ofMegabytes(200), new SecurityLog(new SimpleMeterRegistry()));

    @Test
    void whatNobodyForesawTellsNothingOfTheProgramOrTheRequest() {
        ProblemDetail told = advice.unforeseen(new IllegalStateException("/var/lib/secret of app.yubble.Inner"));
        assertThat(told.getStatus()).isEqualTo(500);
        assertThat(told.toString()).doesNotContain("secret").doesNotContain("Inner");
    }

    @Test
    void aFullDiskIsToldAsWhatItIsWhereverItIsMet() {
        IOException full = new IOException("No space left on device");
        assertThat(advice.unforeseen(new UncheckedIOException(new FullDiskException(full)))
                        .getStatus())
                .isEqualTo(507);
        assertThat(advice.cutOff(new MultipartException("failed", full)).getStatus())
                .isEqualTo(507);
        assertThat(advice.cutOff(new MultipartException("failed", new IOException("ended")))
                        .getStatus())
                .isEqualTo(400);
    }

    @Test
    void whatIsTooLargeForTheDatabaseIsNotADatabaseThatIsAway() {
        SQLException tooLarge = new SQLException("query size (70000000) is >= to max_allowed_packet (67108864)");
        assertThat(advice.databaseGone(new DataAccessResourceFailureException("failed", tooLarge))
                        .getStatus())
                .isEqualTo(413);
        assertThat(advice.databaseGone(new DataAccessResourceFailureException("failed", new SQLException("gone")))
                        .getStatus())
                .isEqualTo(503);
    }
}
