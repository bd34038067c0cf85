package app.yubble.server.editing;

import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Progress;
import app.yubble.core.raster.Region;
import app.yubble.core.raster.Size;
import app.yubble.core.recipe.Recipe;
import app.yubble.core.refocus.Viewer;
import app.yubble.core.touchup.Touchup;
import app.yubble.server.YubbleProperties;
import app.yubble.server.memory.LastUsed;
import app.yubble.server.news.News;
import app.yubble.server.news.NewsReader;
import app.yubble.server.problem.OutdatedException;
import app.yubble.server.problem.RefusedException;
import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.time.Duration;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.concurrent.ArrayBlockingQueue;
import java.util.concurrent.CancellationException;
import java.util.concurrent.Executor;
import java.util.concurrent.ThreadPoolExecutor;
import java.util.concurrent.TimeUnit;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.context.event.EventListener;
import org.springframework.dao.DataAccessException;
import org.springframework.stereotype.Component;

/**
 * Newest wins: of the preview requests of one open page, only the one with the highest number goes on; the others are
 * cancelled where they are, also on other nodes: those are told of a page when it comes here, and of each of its requests as long as
 * it goes to and fro. What a page was sent last is kept for a while, so that the next preview can be a patch on it.
 */
@Component
class PreviewDesk {
    private static final Logger LOG = LoggerFactory.getLogger(PreviewDesk.class);

    private static final int MOST_PAGES = 1000;
    private static final int MOST_ANSWERED = 16;
    private static final long MOST_PIXELS = 8_000_000;
    // A patch ends where blocks of the picture file do, so that it fits in without a seam.
    private static final int BLOCK = 8;
    private static final double NEARLY_ALL = 0.7;
    private static final Duration ROAMS_FOR = Duration.ofMinutes(1);
    /** Requests that other nodes are still to be told of. */
    private static final int MOST_UNTOLD = 100;

    private record Page(UUID account, String page) {}

    /**
     * What a page was sent.
     *
     * @param number of its request
     * @param recipe what is shown
     * @param part of the picture at {@code size}
     */
    record Answer(long number, UUID shot, Recipe recipe, Size size, Region part, Picture picture) {}

    private final Cache<Page, Answer> answered =
            Caffeine.newBuilder().maximumSize(MOST_ANSWERED).softValues().build();

    private final Cache<Page, Long> newest =
            Caffeine.newBuilder().maximumSize(MOST_PAGES).build();

    private final com.google.common.cache.Cache<Page, Viewer> viewers;

    /** Pages that another node has answered lately. */
    private final Cache<Page, Boolean> roaming = Caffeine.newBuilder()
            .maximumSize(MOST_PAGES)
            .expireAfterWrite(ROAMS_FOR)
            .build();

    private final News news;
    private final Executor telling;

    @Autowired
    PreviewDesk(YubbleProperties properties, LastUsed kept, News news) {
        this(properties, kept, news, oneThread());
    }

    private static Executor oneThread() {
        ThreadPoolExecutor out = new ThreadPoolExecutor(
                0,
                1,
                1,
                TimeUnit.MINUTES,
                new ArrayBlockingQueue<>(MOST_UNTOLD),
                work -> {
                    Thread thread = new Thread(work, "preview-news");
                    thread.setDaemon(true);
                    return thread;
                },
                // The next one tells the same.
                new ThreadPoolExecutor.DiscardPolicy());
        return out;
    }

    /** @param telling tells other nodes, which nobody waits for */
    PreviewDesk(YubbleProperties properties, LastUsed kept, News news, Executor telling) {
        this.news = news;
        this.telling = telling;
        viewers = kept.upTo(properties.viewerBytes(), Viewer::bytes, "viewers");
    }

    /** Work of somebody who looks at a page's pictures. */
    @FunctionalInterface
    interface Look {
        Picture with(Viewer viewer);
    }

    /** Lets a page look again: what it looked at last is still there, unless memory was short. */
    Picture look(UUID account, String page, Look look) {
        Page key = new Page(account, page);
        Viewer viewer = viewers.asMap().computeIfAbsent(key, fresh -> new Viewer());
        try {
            return look.with(viewer);
        } finally {
            // Weighed anew.
            viewers.put(key, viewer);
        }
    }

    /** Progress that stops the work as soon as the same page asks for a later preview. */
    Progress ticket(UUID account, String page, long number) {
        Page key = new Page(account, page);
        boolean fresh = newest.getIfPresent(key) == null;
        newest.asMap().merge(key, number, Math::max);
        if (fresh || roaming.getIfPresent(key) != null) {
            telling.execute(() -> tell(account, page, number));
        }
        return done -> {
            Long last = newest.getIfPresent(key);
            if (last != null && last > number) {
                throw new CancellationException("a newer preview is wanted");
            }
        };
    }

    private void tell(UUID account, String page, long number) {
        try {
            news.tell(account, News.Kind.PAGE, page, number);
        } catch (DataAccessException away) {
            LOG.debug("a preview elsewhere goes on although it is no longer wanted", away);
        }
    }

    /** A page has asked another node for something newer. */
    @EventListener
    void told(NewsReader.Edition edition) {
        for (News.Item item : edition.items()) {
            if (item.kind() == News.Kind.PAGE && !item.isOwn()) {
                Page key = new Page(item.account(), item.subject());
                roaming.put(key, true);
                newest.asMap().computeIfPresent(key, (page, number) -> Math.max(number, item.number()));
            }
        }
    }

    /**
     * A recipe that was sent without what its page has sent before.
     *
     * @param over number of the request that had the rest
     * @param order ids of all touch-ups
     */
    Recipe whole(UUID account, String page, Recipe sent, @Nullable Long over, List<String> order) {
        Answer before = answered.getIfPresent(new Page(account, page));
        if (before == null || over == null || before.number() != over) {
            throw new OutdatedException("What this page shows is no longer known here. Send the whole recipe.");
        }
        Map<String, Touchup> all = new HashMap<>();
        before.recipe().touchups().forEach(each -> all.put(each.id(), each));
        sent.touchups().forEach(each -> all.put(each.id(), each));
        List<Touchup> touchups = order.stream().distinct().map(all::get).toList();
        if (touchups.size() < order.size() || touchups.contains(null)) {
            throw new RefusedException("The order names a touch-up twice, or one that is not there.");
        }
        return sent.withTouchups(touchups);
    }

    /**
     * Remembers what a page is being sent, and finds what of it the page does not have yet.
     *
     * @param over number of the request whose answer the page shows; null for none
     * @return in pixels of the answer; null when all of it is to be sent
     */
    @Nullable
    Region news(UUID account, String page, Answer now, @Nullable Long over) {
        Page key = new Page(account, page);
        Answer before = now.part().size().pixels() > MOST_PIXELS
                ? answered.asMap().remove(key)
                : answered.asMap().put(key, now);
        if (over == null
                || before == null
                || before.number() != over
                || !before.shot().equals(now.shot())
                || !before.size().equals(now.size())
                || !before.part().equals(now.part())) {
            return null;
        }
        Region changed = Picture.difference(before.picture(), now.picture());
        Region patch = onBlocks(
                changed == null ? new Region(0, 0, 1, 1) : changed,
                now.picture().size());
        return patch.size().pixels() > NEARLY_ALL * now.part().size().pixels() ? null : patch;
    }

    private static Region onBlocks(Region part, Size size) {
        int left = part.x() / BLOCK * BLOCK;
        int top = part.y() / BLOCK * BLOCK;
        int right = Math.min(size.width(), (part.x() + part.width() + BLOCK - 1) / BLOCK * BLOCK);
        int bottom = Math.min(size.height(), (part.y() + part.height() + BLOCK - 1) / BLOCK * BLOCK);
        return new Region(left, top, right - left, bottom - top);
    }
}
