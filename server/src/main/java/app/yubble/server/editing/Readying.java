package app.yubble.server.editing;

import app.yubble.core.raster.Progress;
import app.yubble.core.raster.Size;
import app.yubble.core.recipe.Recipe;
import app.yubble.core.refocus.RefocusLine;
import app.yubble.server.YubbleProperties;
import app.yubble.server.shoot.Shot;
import app.yubble.server.shoot.ShotStill;
import app.yubble.server.shoot.Shots;
import java.util.UUID;
import java.util.concurrent.CancellationException;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.ThreadPoolExecutor;
import java.util.concurrent.TimeUnit;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.DisposableBean;
import org.springframework.stereotype.Component;

/**
 * Decodes what somebody will probably look at next, and lays its depth on its edges, so that the first preview need not. One after the
 * other, in turn with what people wait for; of more than a few the oldest are dropped, since whoever asked has moved on.
 */
@Component
class Readying implements DisposableBean {
    private static final Logger LOG = LoggerFactory.getLogger(Readying.class);
    /** A photo and its neighbours, as a page and as a draft. */
    private static final int MOST_WAITING = 8;
    /** Of a pixel at full size, of what stays: three planes, nearness, and what is looked up in them. */
    private static final long KEPT_BYTES = 18;
    /** What is ready at full size may take so much of the heap that the cache still holds what else is looked at. */
    private static final int SHARE_OF_HEAP = 5;

    private final RefocusLine line;
    private final Untouched untouched;
    private final ShotRecipes recipes;
    private final Drawing drawing;
    private final long mostBytes;
    private final ThreadPoolExecutor worker = new ThreadPoolExecutor(
            1,
            1,
            0,
            TimeUnit.SECONDS,
            new LinkedBlockingQueue<>(MOST_WAITING),
            work -> {
                Thread thread = new Thread(work, "readying");
                thread.setDaemon(true);
                return thread;
            },
            new ThreadPoolExecutor.DiscardOldestPolicy());

    Readying(RefocusLine line, Untouched untouched, ShotRecipes recipes, Drawing drawing, YubbleProperties properties) {
        this.line = line;
        this.untouched = untouched;
        this.recipes = recipes;
        this.drawing = drawing;
        mostBytes = Math.min(properties.cacheBytes(), Runtime.getRuntime().maxMemory() / SHARE_OF_HEAP);
    }

    /** Makes a shot ready to be looked at, some time soon. */
    void soon(UUID person, Shot shot, Recipe recipe, Size size) {
        worker.execute(() -> prepare(person, shot, recipe, size, Progress.NONE));
    }

    /** The untouched photo too, as a page asks for it first. */
    void photoSoon(UUID person, Shot shot, Size size) {
        worker.execute(() -> attempt(shot, () -> untouched.whole(person, shot, recipes.still(shot, null), size)));
    }

    /**
     * Makes all of a shot ready to be looked at at 100 %, if nobody draws anything meanwhile and the caches can hold it: it takes seconds.
     * Between any two stages it steps back for whoever looks at something.
     */
    void closelySoon(UUID person, Shot shot, Recipe recipe) {
        Size size = Drawing.closest(shot.size());
        if (size.longSide() <= Shots.PROXY_SIDE || KEPT_BYTES * size.pixels() > mostBytes) {
            return;
        }
        worker.execute(() -> {
            if (drawing.isIdle()) {
                prepare(person, shot, recipe, size, done -> stepBack());
            }
        });
    }

    private void prepare(UUID person, Shot shot, Recipe recipe, Size size, Progress mayStop) {
        attempt(shot, () -> {
            ShotStill still = recipes.still(shot, null);
            drawing.inTurn(person, size, Progress.NONE, () -> {
                line.prepare(still, recipe.at(still.moment()), size, mayStop);
                return size;
            });
        });
    }

    private static void attempt(Shot shot, Runnable work) {
        try {
            work.run();
        } catch (RuntimeException fault) {
            // Whoever really looks at it will be told.
            LOG.debug("{} could not be made ready", shot.name(), fault);
        }
    }

    private void stepBack() {
        if (drawing.isForOthers()) {
            throw new CancellationException("somebody looks at something");
        }
    }

    @Override
    public void destroy() {
        worker.shutdownNow();
    }
}
