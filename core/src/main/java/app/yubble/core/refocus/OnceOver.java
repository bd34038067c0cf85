package app.yubble.core.refocus;

import app.yubble.core.lens.LensRender;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Progress;
import app.yubble.core.raster.Region;
import app.yubble.core.raster.Resample;
import app.yubble.core.raster.Size;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.BiConsumer;

/**
 * Runs stages for somebody who does not look again and may be short of memory: each result is let go of after its last use, and the
 * result is handed out part by part. Of a picture of 100 megapixels one number for each pixel takes 400 MB; a line that keeps
 * all it makes would take a dozen of them, this takes five at a time. One thread at a time.
 */
final class OnceOver implements Results {
    /** Sides of parts, at most: the lens needs what lies around a part too, so small parts cost more. */
    private static final int PART = 2048;
    /** Parts begin on multiples of it. */
    private static final int GRID = 64;

    private final StageCache cache = StageCache.keepingAll();
    private final WholeResults whole;
    /** By local stages: of the whole picture, or of the part that is looked at. */
    private final Map<Stage<?>, Object> made = new HashMap<>();

    private Region looked;

    /** @param known where some of what is needed may be found */
    OnceOver(Size size, StageStore known) {
        whole = new WholeResults(cache, known.finding(), Progress.NONE);
        looked = Region.all(size);
    }

    /** Makes what is needed for {@code result} and is not local, in an order that takes little memory. */
    void prepare(Stage<?> result) {
        List<Stage<?>> order = order(result);
        for (int i = 0; i < order.size() && order.get(i) instanceof WholeStage<?>; i++) {
            whole.of(order.get(i));
            takenLastBy(order, i).forEach(this::forget);
        }
    }

    /** @param result is made only here */
    void run(Stage<Picture> result, Size size, Progress progress, BiConsumer<Region, Picture> to) {
        List<Stage<?>> order = order(result);
        List<SeenStage> seen = new ArrayList<>();
        for (int i = 0; i < order.size(); i++) {
            if (order.get(i) instanceof SeenStage stage) {
                seen.add(stage);
                continue;
            }
            progress.at(0);
            Set<Stage<?>> spare = takenLastBy(order, i);
            if (order.get(i) instanceof LocalStage<?> local) {
                made.put(local, local.makeOf(spare, this));
            } else if (isTakenByLocal(order.get(i), order)) {
                whole.of(order.get(i));
            }
            spare.forEach(this::forget);
        }
        List<Region> parts = parts(size);
        LensRender.inSeries(() -> {
            for (int i = 0; i < parts.size(); i++) {
                double begin = (double) i / parts.size();
                look(result, seen, parts.get(i), progress.part(begin, begin + 1.0 / parts.size()), to);
            }
        });
        progress.at(1);
    }

    private void look(
            Stage<Picture> result,
            List<SeenStage> seen,
            Region part,
            Progress progress,
            BiConsumer<Region, Picture> to) {
        looked = part;
        progress.at(0);
        for (int i = 0; i < seen.size(); i++) {
            SeenStage stage = seen.get(i);
            made.put(stage, stage.make(part, this, stage instanceof LensStage ? progress : Progress.NONE));
            takenLastBy(seen, i).forEach(made::remove);
        }
        to.accept(part, of(result, part));
        seen.forEach(made::remove);
    }

    /**
     * Everything that a result depends on, each after what it takes. What is not local comes first, and of that what keeps a number for each
     * pixel last: so long there is room for what the others need while they are made. What a kept result took is not needed.
     */
    private List<Stage<?>> order(Stage<?> result) {
        Set<Stage<?>> all = new LinkedHashSet<>();
        collect(result.maker(), all);
        return all.stream()
                .sorted(Comparator.comparingInt(each -> each instanceof LocalStage<?> ? 2 : needsPlane(each) ? 1 : 0))
                .toList();
    }

    private static boolean needsPlane(Stage<?> stage) {
        return stage instanceof PlaneStage || makers(stage).stream().anyMatch(OnceOver::needsPlane);
    }

    private void collect(Stage<?> stage, Set<Stage<?>> to) {
        if (!whole.isKept(stage)) {
            makers(stage).forEach(each -> collect(each, to));
        }
        to.add(stage);
    }

    private static Set<Stage<?>> makers(Stage<?> stage) {
        Set<Stage<?>> out = new LinkedHashSet<>();
        stage.takes().forEach(each -> out.add(each.maker()));
        return out;
    }

    /** What the stage at {@code index} takes and none after it, of those in the list. */
    private static Set<Stage<?>> takenLastBy(List<? extends Stage<?>> order, int index) {
        Set<Stage<?>> out = new HashSet<>(makers(order.get(index)));
        out.retainAll(new HashSet<>(order.subList(0, index)));
        order.subList(index + 1, order.size()).forEach(after -> out.removeAll(makers(after)));
        return out;
    }

    private static boolean isTakenByLocal(Stage<?> stage, List<Stage<?>> order) {
        return order.stream()
                .anyMatch(each -> each instanceof LocalStage<?> && makers(each).contains(stage));
    }

    private void forget(Stage<?> stage) {
        if (stage instanceof WholeStage<?>) {
            cache.forget(stage.key());
        } else {
            made.remove(stage);
        }
    }

    private static List<Region> parts(Size size) {
        int width = side(size.width());
        int height = side(size.height());
        List<Region> out = new ArrayList<>();
        for (int y = 0; y < size.height(); y += height) {
            for (int x = 0; x < size.width(); x += width) {
                out.add(new Region(x, y, Math.min(width, size.width() - x), Math.min(height, size.height() - y)));
            }
        }
        return out;
    }

    /** About equal ones. */
    private static int side(int length) {
        int count = (length + PART - 1) / PART;
        return ((length + count - 1) / count + GRID - 1) / GRID * GRID;
    }

    @Override
    public <T> T of(Stage<T> stage) {
        Stage<T> maker = stage.maker();
        if (!(maker instanceof LocalStage<T>)) {
            return whole.of(maker);
        }
        @SuppressWarnings("unchecked") // Only what the stage has made is put under it.
        T result = (T) made.get(maker);
        if (result == null) {
            throw new IllegalStateException(maker.name() + " is asked for before its turn or after its last use");
        }
        return result;
    }

    @Override
    public Picture of(Stage<Picture> stage, Region part) {
        Picture known = of(stage);
        boolean ofPart = stage.maker() instanceof SeenStage;
        return ofPart || part.equals(Region.all(known.size())) ? known : Resample.crop(known, part);
    }
}
