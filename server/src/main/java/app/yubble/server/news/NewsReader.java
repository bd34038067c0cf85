package app.yubble.server.news;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Collectors;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.dao.DataAccessException;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import org.springframework.transaction.CannotCreateTransactionException;

/**
 * Reads for all of this node what has happened, once however many pages are open, and hands it on as an event of the application.
 *
 * <p>Numbers are given out when something is told and seen when its transaction is over, so a later one may be seen first: numbers
 * that were passed over are looked for until no transaction can still hold them.
 */
@Component
public class NewsReader {
    private static final Logger LOG = LoggerFactory.getLogger(NewsReader.class);

    private static final int MOST_AT_ONCE = 2000;
    /** Nanoseconds. No transaction lasts so long: a connection that is silent for six seconds is given up. */
    private static final long HELD = 30_000_000_000L;
    /** More are not looked for: something has gone wrong with the counting. */
    private static final int MOST_MISSING = 1000;

    private final News news;
    private final ApplicationEventPublisher events;
    /** Numbers that were not seen, with when they were missed first. */
    private final TreeMap<Long, Long> missing = new TreeMap<>();

    private long last = -1;

    NewsReader(News news, ApplicationEventPublisher events) {
        this.news = news;
        this.events = events;
    }

    /** What was new at one look, in order. */
    public record Edition(List<News.Item> items) {}

    @Scheduled(fixedDelay = 400)
    void read() {
        try {
            List<News.Item> items = look(System.nanoTime());
            if (!items.isEmpty()) {
                events.publishEvent(new Edition(items));
            }
        } catch (DataAccessException | CannotCreateTransactionException noDatabase) {
            LOG.debug("no news while the database is away");
        }
    }

    @Scheduled(initialDelay = 60_000, fixedDelay = 60_000)
    void forget() {
        try {
            news.forgetOld();
        } catch (DataAccessException | CannotCreateTransactionException noDatabase) {
            LOG.debug("nothing is forgotten while the database is away");
        }
    }

    /** @param now in nanoseconds of this node */
    List<News.Item> look(long now) {
        if (last < 0) {
            last = news.last();
            return List.of();
        }
        List<News.Item> out = new ArrayList<>();
        if (!missing.isEmpty()) {
            missing.values().removeIf(since -> now - since > HELD);
            out.addAll(late(missing.keySet()));
            out.forEach(each -> missing.remove(each.sequence()));
        }
        for (News.Item each : news.where("seq > ? order by seq limit " + MOST_AT_ONCE, last)) {
            if (last > 0) {
                for (long passed = last + 1; passed < each.sequence() && missing.size() < MOST_MISSING; passed++) {
                    missing.put(passed, now);
                }
            }
            last = each.sequence();
            out.add(each);
        }
        out.sort(Comparator.comparing(News.Item::sequence));
        return out;
    }

    private List<News.Item> late(Set<Long> numbers) {
        return numbers.isEmpty()
                ? List.of()
                : news.where(
                        "seq in (" + numbers.stream().map(String::valueOf).collect(Collectors.joining(", ")) + ")");
    }
}
