package app.yubble.server.editing;

import app.yubble.core.raster.Progress;
import app.yubble.core.raster.Size;
import app.yubble.core.recipe.Recipe;
import app.yubble.core.refocus.RefocusLine;
import app.yubble.server.shoot.Shot;
import app.yubble.server.shoot.ShotStill;
import java.util.UUID;
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

    private final RefocusLine line;
    private final ShotRecipes recipes;
    private final Drawing drawing;
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

    Readying(RefocusLine line, ShotRecipes recipes, Drawing drawing) {
        this.line = line;
        this.recipes = recipes;
        this.drawing = drawing;
    }

    /** Makes a shot ready to be looked at, some time soon. */
    void soon(UUID person, Shot shot, Recipe recipe, Size size) {
        worker.execute(() -> {
            try {
                ShotStill still = recipes.still(shot, null);
                drawing.inTurn(person, size, Progress.NONE, () -> {
                    line.prepare(still, recipe.at(still.moment()), size);
                    return size;
                });
            } catch (RuntimeException fault) {
                // Whoever really looks at it will be told.
                LOG.debug("{} could not be made ready", shot.name(), fault);
            }
        });
    }

    @Override
    public void destroy() {
        worker.shutdownNow();
    }
}
