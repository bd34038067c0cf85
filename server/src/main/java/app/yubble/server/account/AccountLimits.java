package app.yubble.server.account;

import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.boot.context.properties.ConfigurationProperties;
import org.springframework.boot.context.properties.bind.DefaultValue;

/**
 * Accounts that may have more or less than others.
 *
 * @param own one for each of them
 */
@ConfigurationProperties("yubble.limits")
record AccountLimits(@DefaultValue List<Own> own) {
    /** Of a turn. */
    private static final double LEAST_WEIGHT = 0.01;

    /**
     * What the settings say of one account; what they leave out is as usual.
     *
     * @param name by which it signs in
     * @param weight how many turns of the workers it gets for one of another's
     * @param shots photos and clips
     * @param bytes of files
     * @param work things that may wait to be made
     * @param clipSeconds of all its clips together
     */
    record Own(
            String name,
            @Nullable Double weight,
            @Nullable Long shots,
            @Nullable Long bytes,
            @Nullable Long work,
            @Nullable Long clipSeconds) {
        Limits.Limit over(Limits.Limit usual) {
            return new Limits.Limit(
                    weight == null ? usual.weight() : Math.max(LEAST_WEIGHT, weight),
                    shots == null ? usual.shots() : shots,
                    bytes == null ? usual.bytes() : bytes,
                    work == null ? usual.work() : work,
                    clipSeconds == null ? usual.clipSeconds() : clipSeconds);
        }
    }
}
