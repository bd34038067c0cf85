package app.yubble.core.refocus;

import java.util.LinkedHashMap;
import java.util.Map;

/** A map of what was used last. */
final class Recent<K, V> extends LinkedHashMap<K, V> {
    private static final long serialVersionUID = 1L;

    private final int most;

    /** @param most as many are kept */
    Recent(int most) {
        super(16, 0.75f, true);
        this.most = most;
    }

    @Override
    protected boolean removeEldestEntry(Map.Entry<K, V> eldest) {
        return size() > most;
    }
}
