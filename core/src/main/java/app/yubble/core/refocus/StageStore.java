package app.yubble.core.refocus;

import java.nio.ByteBuffer;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;

/**
 * Where results of stages outlive the memory. It may lose any of them at any time, but what it finds is what was kept. Safe for many
 * threads.
 */
public interface StageStore {
    /** One that keeps nothing. */
    StageStore NONE = new StageStore() {
        @Override
        public @Nullable ByteBuffer find(String still, StageKey key) {
            return null;
        }

        @Override
        public void keep(String still, StageKey key, Supplier<ByteBuffer> written) {}
    };

    /**
     * What was kept, not to be modified; null when nothing is.
     *
     * @param still its {@link Still#id}
     */
    @Nullable
    ByteBuffer find(String still, StageKey key);

    /**
     * Keeps a result, now or some time soon.
     *
     * @param still when it is gone, so may be what was made of it
     * @param written asked for at most once
     */
    void keep(String still, StageKey key, Supplier<ByteBuffer> written);
}
