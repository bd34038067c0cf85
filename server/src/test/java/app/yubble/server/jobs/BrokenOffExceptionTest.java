package app.yubble.server.jobs;

import static org.assertj.core.api.Assertions.assertThatCode;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.sql.SQLException;
import java.util.stream.Stream;
import org.hibernate.TransactionException;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.springframework.dao.DataIntegrityViolationException;
import org.springframework.orm.jpa.JpaSystemException;
import org.springframework.transaction.CannotCreateTransactionException;

class BrokenOffExceptionTest {
    static Stream<RuntimeException> databaseFaults() {
        return Stream.of(
                new CannotCreateTransactionException("no connection"),
                new IllegalStateException(new SQLException("Socket error", "08000")),
                // As the pool and Hibernate say it when the connection went away within a transaction.
                new JpaSystemException(new TransactionException(
                        "Unable to rollback against JDBC Connection", new SQLException("Connection is closed"))));
    }

    @ParameterizedTest
    @MethodSource("databaseFaults")
    void aJobWhoseDatabaseWentAwayIsDoneAgain(RuntimeException fault) {
        assertThatThrownBy(() -> BrokenOffException.rethrow(fault))
                .isInstanceOf(BrokenOffException.class)
                .hasCause(fault);
    }

    @Test
    void aFaultOfTheWorkIsNoReasonToDoItAgain() {
        assertThatCode(() -> BrokenOffException.rethrow(new IllegalStateException("too dark")))
                .doesNotThrowAnyException();
        RuntimeException twice =
                new DataIntegrityViolationException("a name is there twice", new SQLException("Duplicate", "23000"));
        assertThatCode(() -> BrokenOffException.rethrow(twice)).doesNotThrowAnyException();
    }

    @Test
    void aJobOfANodeThatStopsIsDoneAgain() {
        Thread.currentThread().interrupt();
        try {
            assertThatThrownBy(() -> BrokenOffException.rethrow(new IllegalStateException("interrupted")))
                    .isInstanceOf(BrokenOffException.class);
        } finally {
            Thread.interrupted();
        }
    }
}
