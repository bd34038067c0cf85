package app.yubble.server.node;

import java.time.Duration;
import org.jspecify.annotations.Nullable;
import org.springframework.boot.context.properties.ConfigurationProperties;
import org.springframework.boot.context.properties.bind.DefaultValue;

/**
 * What this process is among others.
 *
 * @param name by which a proxy routes pages to it; null is a name that it makes up
 * @param role what it does
 * @param mostClockOff from the database's clock, so that work is not taken for lost that is under way
 */
@ConfigurationProperties("yubble.node")
record NodeProperties(
        @Nullable String name,
        @DefaultValue("all") Role role,
        @DefaultValue("10s") Duration mostClockOff) {}
