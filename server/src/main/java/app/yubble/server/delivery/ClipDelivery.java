package app.yubble.server.delivery;

import app.yubble.core.clip.SideBySide;
import app.yubble.core.depth.DepthEdges;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Progress;
import app.yubble.core.raster.Size;
import app.yubble.core.recipe.Course;
import app.yubble.core.recipe.DepthChoice;
import app.yubble.core.recipe.Recipe;
import app.yubble.core.refocus.FrameLines;
import app.yubble.core.refocus.RefocusLine;
import app.yubble.core.refocus.View;
import app.yubble.core.refocus.Viewer;
import app.yubble.media.clip.ClipFile;
import app.yubble.media.clip.ClipFormat;
import app.yubble.media.clip.ClipInfo;
import app.yubble.media.clip.ClipJoiner;
import app.yubble.media.clip.ClipScan;
import app.yubble.media.clip.ClipSheet;
import app.yubble.media.clip.FrameZip;
import app.yubble.media.clip.StretchWriter;
import app.yubble.media.recipe.RecipeJson;
import app.yubble.server.follow.Follows;
import app.yubble.server.jobs.StoredProgress;
import app.yubble.server.memory.MemoryGate;
import app.yubble.server.shoot.ClipFiles;
import app.yubble.server.shoot.Materials;
import app.yubble.server.shoot.PicturedStill;
import app.yubble.server.shoot.Shot;
import app.yubble.server.shoot.ShotMaterial;
import app.yubble.server.shoot.Shots;
import app.yubble.server.storage.FileStore;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.BiFunction;
import java.util.function.DoubleConsumer;
import java.util.function.IntConsumer;
import org.springframework.stereotype.Component;

/** Renders the stretches of a clip's delivery and joins them. */
@Component
class ClipDelivery {
    /** Frames; a second of film. Stretches begin at multiples of it, so that those of another delivery may fit. */
    static final int FRAMES = 24;

    /** Films to play that are no larger are drafts. */
    private static final int DRAFT_SIDE = 900;

    /** Frames rendered at a time. */
    private static final int WORKERS = 2;

    private final Shots shots;
    private final Materials materials;
    private final ClipFiles clips;
    private final FileStore files;
    private final StretchStore store;
    private final MemoryGate gate;
    private final Follows follows;

    ClipDelivery(
            Shots shots,
            Materials materials,
            ClipFiles clips,
            FileStore files,
            StretchStore store,
            MemoryGate gate,
            Follows follows) {
        this.follows = follows;
        this.gate = gate;
        this.shots = shots;
        this.materials = materials;
        this.clips = clips;
        this.files = files;
        this.store = store;
    }

    /** Frames from {@code from} (inclusive) to {@code end} (exclusive). */
    record Part(int from, int end) {
        int frames() {
            return end - from;
        }
    }

    /** The stretches of a delivery, in order. */
    static List<Part> parts(Delivery delivery) {
        List<Part> out = new ArrayList<>();
        int from = delivery.firstFrame();
        while (from < delivery.endFrame()) {
            int end = Math.min(delivery.endFrame(), (from / FRAMES + 1) * FRAMES);
            out.add(new Part(from, end));
            from = end;
        }
        return out;
    }

    /** What all stretches of a delivery have in common. */
    private final class Reel {
        final Delivery delivery;
        final Shot shot;
        final Course course;
        final DepthChoice depth;
        final ClipFormat format;
        final ShotMaterial material;
        final ClipSheet sheet;
        final Size size;
        final StretchNames names;

        Reel(Delivery delivery) {
            this.delivery = delivery;
            shot = shots.byId(delivery.shotId());
            Recipe recipe = RecipeJson.read(delivery.recipe());
            depth = recipe.depth();
            format = delivery.format().clip();
            material = materials.ofClip(shot, recipe.depth().source(), delivery.depthHash());
            course = follows.whole(shot, material, recipe);
            sheet = clips.sheet(shot);
            Integer longest = delivery.longestSide();
            size = longest == null ? shot.size() : shot.size().fitting(longest);
            names = new StretchNames(
                    material, recipe, course, format + " " + delivery.quality() + " " + size + " " + detail());
        }

        DepthEdges.Detail detail() {
            return delivery.isPlaying() && size.longSide() <= DRAFT_SIDE
                    ? DepthEdges.Detail.QUICK
                    : DepthEdges.Detail.STEADY;
        }

        String name(Part part) {
            return names.of(part.from(), part.end());
        }

        /** Small results are made from the small file. */
        ClipFile source() {
            return delivery.isPlaying() && size.longSide() <= ClipScan.PROXY_SIDE
                    ? clips.small(shot)
                    : clips.original(shot);
        }

        long micros(Part part) {
            return sheet.shownMicros(part.from(), part.end());
        }
    }

    /** How a delivery stands when a turn of work on it ends. */
    enum State {
        /** All stretches are there. */
        COMPLETE,
        /** There are stretches that nobody has rendered or is rendering. */
        MORE,
        /** What is missing others are rendering. */
        ELSEWHERE
    }

    /**
     * Renders stretches that nobody else has or is rendering, one after the other, until none is left or {@code turn} is over.
     *
     * @param progress is told the share of frames that are there, and may call the work off
     */
    State render(Delivery delivery, Duration turn, DoubleConsumer progress) throws IOException {
        Reel reel = new Reel(delivery);
        Map<Part, String> missing = new LinkedHashMap<>();
        parts(delivery).forEach(part -> missing.put(part, reel.name(part)));
        int frames = delivery.endFrame() - delivery.firstFrame();
        long start = System.nanoTime();
        while (true) {
            missing.values().removeIf(name -> store.find(name).isPresent());
            int there =
                    frames - missing.keySet().stream().mapToInt(Part::frames).sum();
            progress.accept((double) there / frames);
            if (missing.isEmpty()) {
                return State.COMPLETE;
            }
            if (System.nanoTime() - start > turn.toNanos()) {
                return State.MORE;
            }
            Map.Entry<Part, String> mine = missing.entrySet().stream()
                    .filter(each -> store.take(each.getValue()))
                    .findFirst()
                    .orElse(null);
            if (mine == null) {
                return State.ELSEWHERE;
            }
            String name = mine.getValue();
            StoredProgress keeping = new StoredProgress(done -> {
                store.keepTaken(name);
                progress.accept(done);
                return true;
            });
            AtomicInteger made = new AtomicInteger(there);
            try {
                render(reel, mine.getKey(), name, more -> keeping.at((double) made.addAndGet(more) / frames));
            } finally {
                store.giveBack(name);
            }
        }
    }

    private void render(Reel reel, Part part, String name, IntConsumer done) throws IOException {
        Path file = files.incoming();
        try {
            if (reel.format.isDepth()) {
                depth(reel, part, file, done);
            } else if (reel.format.isFrames()) {
                pictures(reel, part, file, done);
            } else {
                film(reel, part, file, done);
            }
            store.put(name, reel.shot.id(), files.keep(file).hash());
        } finally {
            Files.deleteIfExists(file);
        }
    }

    private void film(Reel reel, Part part, Path file, IntConsumer done) {
        long start = reel.sheet.micros(part.from());
        try (StretchWriter writer =
                StretchWriter.open(file, reel.format, reel.delivery.quality(), reel.sheet.info(), reel.size)) {
            frames(reel, part, (frame, picture) -> {
                done.accept(1);
                writer.add(picture, reel.sheet.micros(frame) - start, reel.sheet.lastsMicros(frame));
            });
            writer.finish();
        }
    }

    private void pictures(Reel reel, Part part, Path file, IntConsumer done) throws IOException {
        try (FrameZip zip = FrameZip.create(file, reel.format, reel.sheet.info(), reel.size)) {
            frames(reel, part, (frame, picture) -> {
                done.accept(1);
                zip.add(frame - reel.delivery.firstFrame(), picture);
            });
        }
    }

    /** Nearness after trim and touch-ups, as the band sees it. */
    private void depth(Reel reel, Part part, Path file, IntConsumer done) throws IOException {
        long start = reel.sheet.micros(part.from());
        boolean lossless = reel.format == ClipFormat.DEPTH_FFV1;
        try (FrameZip zip = reel.format.isFrames()
                        ? FrameZip.create(file, reel.format, reel.sheet.info(), reel.size)
                        : null;
                StretchWriter writer =
                        zip == null ? StretchWriter.openDepth(file, lossless, reel.sheet.info(), reel.size) : null) {
            worked(
                    reel,
                    part,
                    (line, still) -> line.nearness(still, reel.course.at(still.moment()), reel.size),
                    (frame, map) -> {
                        done.accept(1);
                        if (zip != null) {
                            zip.add(frame - reel.delivery.firstFrame(), map);
                        } else if (writer != null) {
                            writer.add(map, reel.sheet.micros(frame) - start, reel.sheet.lastsMicros(frame));
                        }
                    });
            if (writer != null) {
                writer.finish();
            }
        }
    }

    private void frames(Reel reel, Part part, SideBySide.Taker<Picture> taker) {
        worked(
                reel,
                part,
                (line, still) -> line.render(
                        new Viewer(), still, reel.course.at(still.moment()), View.of(reel.size), Progress.NONE),
                taker);
    }

    private <T> void worked(
            Reel reel, Part part, BiFunction<RefocusLine, PicturedStill, T> work, SideBySide.Taker<T> taker) {
        FrameLines lines = new FrameLines(reel.depth);
        SideBySide.run(
                reel.source(),
                part.from(),
                part.end(),
                WORKERS,
                (frame, picture) -> {
                    PicturedStill still = new PicturedStill(reel.material.frame(frame), picture, reel.detail());
                    return gate.looking(reel.size.pixels(), () -> work.apply(lines.of(still), still));
                },
                taker);
    }

    /** Joins all stretches with the clip's sound; all are there. */
    FileStore.Stored join(Delivery delivery) throws IOException {
        Reel reel = new Reel(delivery);
        List<Part> parts = parts(delivery);
        List<ClipJoiner.Stretch> stretches = parts.stream()
                .map(part -> new ClipJoiner.Stretch(
                        files.local(store.find(reel.name(part)).orElseThrow()), reel.micros(part)))
                .toList();
        Path out = files.incoming();
        Path list = files.incoming();
        try {
            if (reel.format.isFrames()) {
                FrameZip.join(stretches.stream().map(ClipJoiner.Stretch::file).toList(), out);
            } else if (reel.format.isDepth()) {
                ClipJoiner.joinDepth(stretches, list, reel.sheet.info(), reel.format, out);
            } else {
                ClipInfo info = reel.sheet.info();
                long micros = reel.micros(new Part(delivery.firstFrame(), delivery.endFrame()));
                ClipJoiner.Sound sound = new ClipJoiner.Sound(
                        files.local(reel.shot.contentHash()), info, reel.sheet.micros(delivery.firstFrame()), micros);
                ClipJoiner.join(stretches, list, info, sound, reel.format, out);
            }
            return files.keep(out);
        } catch (UncheckedIOException fault) {
            throw Objects.requireNonNull(fault.getCause());
        } finally {
            Files.deleteIfExists(out);
            Files.deleteIfExists(list);
        }
    }
}
