package app.yubble.server.account;

import java.util.concurrent.Semaphore;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;
import org.springframework.security.crypto.password.PasswordEncoder;

/**
 * Looks at as many passwords at once as there are cores, one after the other in the order of asking: each takes a tenth of a second of
 * one, and when many people come in at once nothing else would get its turn.
 */
final class PatientEncoder implements PasswordEncoder {
    private final PasswordEncoder encoder;
    private final Semaphore places =
            new Semaphore(Math.max(1, Runtime.getRuntime().availableProcessors()), true);

    PatientEncoder(PasswordEncoder encoder) {
        this.encoder = encoder;
    }

    @Override
    public @Nullable String encode(@Nullable CharSequence password) {
        return inTurn(() -> encoder.encode(password));
    }

    @Override
    public boolean matches(@Nullable CharSequence password, @Nullable String encoded) {
        return Boolean.TRUE.equals(inTurn(() -> encoder.matches(password, encoded)));
    }

    @Override
    public boolean upgradeEncoding(@Nullable String encoded) {
        return encoder.upgradeEncoding(encoded);
    }

    private <T> @Nullable T inTurn(Supplier<@Nullable T> work) {
        places.acquireUninterruptibly();
        try {
            return work.get();
        } finally {
            places.release();
        }
    }
}
