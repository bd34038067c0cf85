package app.yubble.server.editing;

import app.yubble.core.raster.Progress;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.UUID;
import java.util.concurrent.CancellationException;
import org.springframework.stereotype.Component;

/**
 * Newest wins: of the preview requests of one open page, only the one with the highest number goes on; the others are
 * cancelled where they are.
 */
@Component
class PreviewDesk {
    private static final int MOST_PAGES = 1000;

    private record Page(UUID account, String page) {}

    private final Map<Page, Long> newest = new LinkedHashMap<>(16, 0.75f, true) {
        private static final long serialVersionUID = 1L;

        @Override
        protected boolean removeEldestEntry(Map.Entry<Page, Long> eldest) {
            return size() > MOST_PAGES;
        }
    };

    /** Progress that stops the work as soon as the same page asks for a later preview. */
    Progress ticket(UUID account, String page, long number) {
        Page key = new Page(account, page);
        synchronized (newest) {
            newest.merge(key, number, Math::max);
        }
        return done -> {
            synchronized (newest) {
                if (newest.getOrDefault(key, number) > number) {
                    throw new CancellationException("a newer preview is wanted");
                }
            }
        };
    }
}
