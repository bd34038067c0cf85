package app.yubble.core.refocus;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.WritableByteChannel;
import org.jspecify.annotations.Nullable;

/**
 * Where results of stages outlive the memory. It may lose any of them at any time, but what it finds is what was kept. Safe for many
 * threads.
 */
public interface StageStore {
    /** One that keeps nothing. */
    StageStore NONE = new StageStore() {
        @Override
        public boolean has(String still, StageKey key) {
            return false;
        }

        @Override
        public @Nullable ByteBuffer find(String still, StageKey key) {
            return null;
        }

        @Override
        public void keep(String still, StageKey key, Written written) {}
    };

    /** What writes a result. */
    @FunctionalInterface
    interface Written {
        void to(WritableByteChannel out) throws IOException;
    }

    /** Whether a result will probably be found. */
    boolean has(String still, StageKey key);

    /**
     * What was kept, not to be modified; null when nothing is.
     *
     * @param still its {@link Still#id}
     */
    @Nullable
    ByteBuffer find(String still, StageKey key);

    /**
     * Keeps a result unless it is kept, now or some time soon.
     *
     * @param still when it is gone, so may be what was made of it
     * @param written called at most once
     */
    void keep(String still, StageKey key, Written written);

    /** The same for somebody who only passes by: it finds what is kept, and keeps nothing more. */
    default StageStore finding() {
        StageStore all = this;
        return new StageStore() {
            @Override
            public boolean has(String still, StageKey key) {
                return all.has(still, key);
            }

            @Override
            public @Nullable ByteBuffer find(String still, StageKey key) {
                return all.find(still, key);
            }

            @Override
            public void keep(String still, StageKey key, Written written) {}
        };
    }
}
