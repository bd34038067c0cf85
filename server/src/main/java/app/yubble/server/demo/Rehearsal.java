package app.yubble.server.demo;

import app.yubble.core.focus.SharpBand;
import app.yubble.core.lens.Aperture;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Progress;
import app.yubble.core.recipe.DepthChoice;
import app.yubble.core.recipe.Recipe;
import app.yubble.core.refocus.HeldPhoto;
import app.yubble.core.refocus.RefocusLine;
import app.yubble.core.refocus.StageCache;
import app.yubble.core.refocus.View;
import app.yubble.media.depthfile.DepthFileReader;
import app.yubble.media.picture.DecodedPicture;
import app.yubble.media.picture.PictureReader;
import app.yubble.media.picture.PictureWriter;
import app.yubble.server.YubbleProperties;
import app.yubble.server.editing.Drawing;
import app.yubble.server.memory.MemoryGate;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.DisposableBean;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Component;

/**
 * Draws previews of a demo photo for nobody after the start, so that the machine code of what draws them is there when the first person
 * comes. It steps back as soon as anybody waits for anything, and while depth is estimated.
 */
@Component
class Rehearsal implements DisposableBean {
    private static final Logger LOG = LoggerFactory.getLogger(Rehearsal.class);
    /** Longer side of a preview in pixels: as small as a draft, so that each pause comes soon. */
    private static final int SIDE = 640;
    /** After as many hardly anything is compiled any more. */
    private static final int PREVIEWS = 60;

    private static final double QUALITY = 0.9;
    private static final long PAUSE_MILLIS = 200;

    private final YubbleProperties properties;
    private final PictureReader reader;
    private final Drawing drawing;
    private final MemoryGate gate;
    private volatile @Nullable Thread player;

    Rehearsal(YubbleProperties properties, PictureReader reader, Drawing drawing, MemoryGate gate) {
        this.gate = gate;
        this.properties = properties;
        this.reader = reader;
        this.drawing = drawing;
    }

    @EventListener(ApplicationReadyEvent.class)
    void begin() {
        Path folder = properties.demoFolder();
        if (folder == null || !Files.exists(folder.resolve("photos/crossing.jpg"))) {
            return;
        }
        Thread thread = new Thread(() -> play(folder), "rehearsal");
        thread.setDaemon(true);
        player = thread;
        thread.start();
    }

    private void play(Path folder) {
        long start = System.nanoTime();
        try {
            DecodedPicture photo = reader.read(folder.resolve("photos/crossing.jpg"));
            byte[] depth = Files.readAllBytes(folder.resolve("truth/crossing-depth.png"));
            Plane nearness =
                    new DepthFileReader(reader).read(depth, photo.picture().size());
            HeldPhoto scene = HeldPhoto.of(photo.picture(), nearness);
            for (int i = 0; i < PREVIEWS; i++) {
                while (!drawing.isIdle() || !gate.isIdle()) {
                    Thread.sleep(PAUSE_MILLIS);
                }
                // A line of its own each time: depth is laid on its edges anew, too.
                RefocusLine line = new RefocusLine(StageCache.keepingAll());
                View view = View.of(photo.picture().size().fitting(SIDE));
                Picture result = line.render(scene, recipe((double) i / PREVIEWS), view, Progress.NONE);
                PictureWriter.write(
                        result,
                        photo.origin().withSize(result.size()),
                        PictureWriter.Format.JPEG,
                        QUALITY,
                        OutputStream.nullOutputStream());
            }
            LOG.info("rehearsed in {} ms", (System.nanoTime() - start) / 1_000_000);
        } catch (InterruptedException stopped) {
            Thread.currentThread().interrupt();
        } catch (IOException | RuntimeException fault) {
            LOG.info("the rehearsal was broken off: {}", fault.getMessage());
        }
    }

    /** Both sides blurred, the band somewhere else each time. */
    private static Recipe recipe(double way) {
        return Recipe.INITIAL
                .withDepth(DepthChoice.of(DepthChoice.Source.FILE))
                .withBand(SharpBand.around(0.3 + 0.4 * way, 0.1, 0.05))
                .withAperture(Aperture.DEFAULT.withFree(30 + 40 * way));
    }

    @Override
    public void destroy() {
        Thread thread = player;
        if (thread != null) {
            thread.interrupt();
        }
    }
}
