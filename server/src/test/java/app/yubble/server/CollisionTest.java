package app.yubble.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.UUID;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.boot.test.context.TestConfiguration;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Import;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.transaction.annotation.Transactional;

/** Two transactions that stand in each other's way both succeed. */
@Import(CollisionTest.Locks.class)
class CollisionTest extends ServerTest {
    @Autowired
    private Two two;

    @Autowired
    private JdbcTemplate database;

    @TestConfiguration
    static class Locks {
        @Bean
        Two two(JdbcTemplate database) {
            return new Two(database);
        }
    }

    /** Locks two accounts after each other; the other one does so the other way round. */
    static class Two {
        private final JdbcTemplate database;
        private final CountDownLatch both = new CountDownLatch(2);
        private final AtomicInteger begun = new AtomicInteger();

        Two(JdbcTemplate database) {
            this.database = database;
        }

        /** How often it was begun. */
        public int begun() {
            return begun.get();
        }

        @Transactional
        public void rename(UUID first, UUID second, String engine) throws InterruptedException {
            begun.incrementAndGet();
            database.update("update account set depth_engine = ? where id = ?", engine, first);
            both.countDown();
            both.await(10, TimeUnit.SECONDS);
            database.update("update account set depth_engine = ? where id = ?", engine, second);
        }
    }

    private UUID account(String name) {
        browser().signedUp(name);
        return database.queryForObject("select id from account where name = ?", UUID.class, name);
    }

    private CompletableFuture<Void> inAThread(UUID first, UUID second, String engine) {
        return CompletableFuture.runAsync(() -> {
            try {
                two.rename(first, second, engine);
            } catch (InterruptedException stopped) {
                throw new IllegalStateException(stopped);
            }
        });
    }

    @Test
    void theOneThatTheDatabaseEndedIsTriedAgain() {
        UUID a = account("collider");
        UUID b = account("collided");
        CompletableFuture.allOf(inAThread(a, b, "one"), inAThread(b, a, "other"))
                .orTimeout(20, TimeUnit.SECONDS)
                .join();
        assertThat(two.begun()).isGreaterThan(2);
        List<String> engines =
                database.queryForList("select depth_engine from account where id in (?, ?)", String.class, a, b);
        assertThat(engines).hasSize(2).containsOnly(engines.get(0));
    }
}
