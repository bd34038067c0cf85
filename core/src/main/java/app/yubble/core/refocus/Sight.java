package app.yubble.core.refocus;

import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Progress;
import app.yubble.core.raster.Region;
import app.yubble.core.raster.Resample;
import app.yubble.core.raster.Size;
import java.util.Collection;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/**
 * Runs the local stages for one picture at one size. It keeps what each has made last and makes anew only what is not the same
 * any more, by what the stages say of themselves. One thread at a time.
 *
 * <p>How: stages are gone through in their order. What a stage finds changed in its own part of the recipe is stale. Before the
 * stale part of its result is made anew, and again after that, the kept results of the stages that take it are told, and
 * become stale as far as their {@linkplain LocalStage#reach reach} goes. What is called off on the way stays stale.
 */
final class Sight implements Results {
    /** A view that is larger, in pixels, is not kept: three results of it are a hundred megabytes each. */
    private static final long MOST_KEPT = 8_000_000;
    /** The part that is looked at and the one before. */
    private static final int MOST_PARTS = 2;

    private static final class Kept<T> {
        final Region part;
        LocalStage<T> stage;
        T result;
        Object everywhere;

        @Nullable
        Region stale;

        Kept(Region part, LocalStage<T> stage, T result, Object everywhere) {
            this.part = part;
            this.stage = stage;
            this.result = result;
            this.everywhere = everywhere;
        }

        void mark(@Nullable Region region) {
            Region seen = region == null ? null : region.meet(part);
            stale = Region.around(stale, seen);
        }

        long bytes() {
            return stage.bytes(result);
        }
    }

    private final Region all;
    private final Map<String, Kept<?>> ofWhole = new HashMap<>();
    private final Recent<Region, Map<String, Kept<?>>> ofParts = new Recent<>(MOST_PARTS);
    private final DrawnParts drawnParts = new DrawnParts();
    private Region looked;
    private Results whole;

    Sight(Size size, Results whole) {
        all = Region.all(size);
        looked = all;
        this.whole = whole;
    }

    DrawnParts drawnParts() {
        return drawnParts;
    }

    /** Memory held, of results that the cache holds too as well. */
    long bytes() {
        return Stream.concat(
                        ofWhole.values().stream(), ofParts.values().stream().flatMap(each -> each.values().stream()))
                .mapToLong(Kept::bytes)
                .sum();
    }

    /**
     * The result of a line within {@code part}.
     *
     * @param wholeResults of the stages that are not local
     */
    Picture look(Line line, Region part, Results wholeResults, Progress progress) {
        looked = part;
        whole = wholeResults;
        progress.at(0.05);
        try {
            for (LocalStage<?> each : needed(line.result())) {
                refresh(each, each instanceof LensStage ? progress.part(0.05, 1) : Progress.NONE);
            }
            progress.at(1);
            return of(line.result(), part);
        } finally {
            if (part.size().pixels() > MOST_KEPT) {
                ofParts.remove(part);
            }
        }
    }

    /** The local stages that a result depends on, each after what it takes. */
    private static Set<LocalStage<?>> needed(Stage<?> stage) {
        Set<LocalStage<?>> out = new LinkedHashSet<>();
        if (stage.maker() instanceof LocalStage<?> local) {
            local.takes().forEach(each -> out.addAll(needed(each)));
            out.add(local);
        }
        return out;
    }

    private <T> void refresh(LocalStage<T> stage, Progress progress) {
        Region part = stage.isOfWholePicture() ? all : looked;
        Map<String, Kept<?>> slots = slots(stage);
        @SuppressWarnings("unchecked") // A name is that of one kind of stage.
        Kept<T> kept = (Kept<T>) slots.get(stage.name());
        Object everywhere = stage.everywhere(this);
        if (kept == null) {
            slots.put(stage.name(), new Kept<>(part, stage, stage.make(part, this, progress), everywhere));
            return;
        }
        kept.mark(everywhere.equals(kept.everywhere) ? changed(kept.stage, stage) : all);
        kept.stage = stage;
        kept.everywhere = everywhere;
        Region stale = kept.stale;
        if (stale != null) {
            tellTakersOf(stage, stale);
            kept.result = stage.renewed(kept.result, part, stale, this, progress);
            tellTakersOf(stage, stale);
            kept.stale = null;
        }
    }

    private Map<String, Kept<?>> slots(LocalStage<?> stage) {
        return stage.isOfWholePicture() ? ofWhole : ofParts.computeIfAbsent(looked, part -> new HashMap<>());
    }

    private <T> @Nullable Region changed(LocalStage<T> before, LocalStage<T> now) {
        List<Stage<?>> took = makers(before);
        List<Stage<?>> takes = makers(now);
        for (int i = 0; i < takes.size(); i++) {
            boolean told = takes.get(i) instanceof LocalStage<?>
                    && takes.get(i).name().equals(took.get(i).name());
            if (!told && !takes.get(i).key().equals(took.get(i).key())) {
                return all;
            }
        }
        return now.differs(before);
    }

    private static List<Stage<?>> makers(LocalStage<?> stage) {
        return stage.takes().stream().<Stage<?>>map(Stage::maker).toList();
    }

    private void tellTakersOf(LocalStage<?> stage, Region changed) {
        tell(ofWhole.values(), stage, changed);
        ofParts.values().forEach(each -> tell(each.values(), stage, changed));
    }

    private void tell(Collection<Kept<?>> takers, LocalStage<?> of, Region changed) {
        for (Kept<?> each : takers) {
            if (makers(each.stage).stream().anyMatch(taken -> taken.name().equals(of.name()))) {
                each.mark(each.stage.reach(changed, this));
            }
        }
    }

    @Override
    public <T> T of(Stage<T> stage) {
        if (!(stage.maker() instanceof LocalStage<T> local)) {
            return whole.of(stage);
        }
        Kept<?> kept = slots(local).get(local.name());
        if (kept == null) {
            throw new IllegalStateException(local.name() + " is asked for before its turn");
        }
        @SuppressWarnings("unchecked") // As above.
        T result = (T) kept.result;
        return result;
    }

    @Override
    public Picture of(Stage<Picture> stage, Region part) {
        if (!(stage.maker() instanceof LocalStage<Picture> local)) {
            return whole.of(stage, part);
        }
        Picture seen = of(stage);
        Region of = local.isOfWholePicture() ? all : looked;
        return part.equals(of) ? seen : Resample.crop(seen, part.from(of));
    }
}
