package app.yubble.server.memory;

import app.yubble.server.YubbleProperties;
import app.yubble.vision.Network;
import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.lang.management.ManagementFactory;
import java.lang.management.MemoryMXBean;
import java.time.Duration;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;

/**
 * Gives memory back when nobody has been there for a while: what the caches hold, the networks, and then the heap that is free. Whoever
 * comes next waits a little longer for a first preview and a first estimate.
 */
@Component
class Resting extends OncePerRequestFilter {
    private static final Logger LOG = LoggerFactory.getLogger(Resting.class);
    private static final double MEGA = 1e6;

    private final LastUsed kept;
    private final Duration after;
    private final MemoryMXBean memory = ManagementFactory.getMemoryMXBean();
    private volatile long lastAsked = System.nanoTime();
    private boolean rests;

    @Autowired
    Resting(LastUsed kept, YubbleProperties properties) {
        this(kept, properties.restAfter());
    }

    Resting(LastUsed kept, Duration after) {
        this.kept = kept;
        this.after = after;
    }

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        lastAsked = System.nanoTime();
        chain.doFilter(request, response);
    }

    @Scheduled(fixedDelay = 20_000)
    void look() {
        Network.releaseUnused(after);
        boolean nobody = System.nanoTime() - lastAsked >= after.toNanos();
        if (nobody && !rests) {
            kept.clear();
            // The only way to have the heap that is free go back to the system at once.
            memory.gc();
            LOG.info(
                    "nobody is there: {} MB of heap are held",
                    Math.round(memory.getHeapMemoryUsage().getCommitted() / MEGA));
        }
        rests = nobody;
    }
}
