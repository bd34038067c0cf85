package app.yubble.server.account;

import app.yubble.server.YubbleProperties;
import com.github.benmanes.caffeine.cache.Caffeine;
import com.github.benmanes.caffeine.cache.LoadingCache;
import java.time.Duration;
import java.util.Map;
import java.util.UUID;
import java.util.stream.Collectors;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.stereotype.Component;

/** How much of the server each account may have: as all others, or as the settings say for it. */
@Component
public class Limits {
    /** A new account may get its name later than its first question. */
    private static final Duration KEPT = Duration.ofMinutes(1);

    private static final int MOST_KEPT = 10_000;

    private final LoadingCache<UUID, Limit> known;

    Limits(YubbleProperties properties, AccountLimits settings, JdbcTemplate database) {
        Map<String, AccountLimits.Own> own = settings.own().stream()
                .collect(Collectors.toMap(each -> AccountName.folded(each.name()), each -> each));
        Limit usual = new Limit(
                1,
                properties.mostAccountShots(),
                properties.mostAccountBytes(),
                properties.mostAccountWork(),
                properties.mostAccountClipSeconds());
        known = Caffeine.newBuilder()
                .maximumSize(MOST_KEPT)
                .expireAfterWrite(KEPT)
                .build(account ->
                        database
                                .queryForList("select folded_name from account where id = ?", String.class, account)
                                .stream()
                                .filter(own::containsKey)
                                .map(own::get)
                                .map(each -> each.over(usual))
                                .findFirst()
                                .orElse(usual));
    }

    /**
     * What one account may have.
     *
     * @param weight how many turns of the workers it gets for one of another's
     * @param shots photos and clips
     * @param bytes of files
     * @param work things that may wait to be made
     * @param clipSeconds of all its clips together
     */
    record Limit(double weight, long shots, long bytes, long work, long clipSeconds) {}

    Limit of(UUID account) {
        return known.get(account);
    }

    /** How many turns of the workers an account gets for one of another's. */
    public double weight(UUID account) {
        return of(account).weight();
    }
}
