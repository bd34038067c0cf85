package app.yubble.server.delivery;

import app.yubble.core.finish.Crispness;
import app.yubble.core.finish.Noise;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Progress;
import app.yubble.core.raster.Reduction;
import app.yubble.core.raster.Region;
import app.yubble.core.raster.Resample;
import app.yubble.core.raster.Size;
import app.yubble.core.recipe.Recipe;
import app.yubble.core.refocus.Layers;
import app.yubble.core.refocus.RefocusLine;
import app.yubble.core.refocus.StageCache;
import app.yubble.core.refocus.StageStore;
import app.yubble.media.depthfile.DepthWriter;
import app.yubble.media.depthfile.StoredDepthWriter;
import app.yubble.media.layered.LayeredWriter;
import app.yubble.media.picture.Carried;
import app.yubble.media.picture.ColourSpace;
import app.yubble.media.picture.Origin;
import app.yubble.media.picture.PictureReader;
import app.yubble.media.picture.PictureSheet;
import app.yubble.media.picture.PictureWriter;
import app.yubble.media.picture.WriteSettings;
import app.yubble.media.recipe.Done;
import app.yubble.media.recipe.RecipeJson;
import app.yubble.server.shoot.Materials;
import app.yubble.server.shoot.Shot;
import app.yubble.server.shoot.ShotStill;
import app.yubble.server.storage.FileStore;
import app.yubble.server.storage.StoredPictures;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.util.Objects;
import java.util.concurrent.atomic.AtomicReference;
import java.util.function.BiConsumer;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** Renders what is delivered of a photo and stores it. */
@Component
class PhotoDelivery {
    /** Pixels of the longer side of depth that is stored in a JPEG, as cameras do. */
    private static final int STORED_DEPTH = 2048;

    private static final int THUMBNAIL = 640;
    /** Pixels of a picture that is drawn as a whole, to be reduced. */
    private static final long MOST_DRAWN = 60_000_000;

    private final Materials materials;
    private final FileStore files;
    private final StoredPictures pictures;
    private final StageStore stages;
    private final PictureReader reader;

    PhotoDelivery(
            Materials materials, FileStore files, StoredPictures pictures, StageStore stages, PictureReader reader) {
        this.stages = stages;
        this.materials = materials;
        this.files = files;
        this.pictures = pictures;
        this.reader = reader;
    }

    /**
     * What was made.
     *
     * @param thumbnail hash of a small picture of it
     */
    record Made(FileStore.Stored file, String thumbnail) {}

    /**
     * One run.
     *
     * @param size of the result
     * @param stages where some of what it takes may be found
     */
    private record Run(
            DeliverySettings settings,
            ShotStill still,
            Recipe recipe,
            Size size,
            Origin origin,
            StageStore stages,
            Progress progress) {
        // A cache of its own: the stages of one large picture would push everybody's previews out of the shared one.
        private RefocusLine line() {
            return new RefocusLine(StageCache.keepingAll(), stages.finding());
        }

        private Plane depth() {
            return line().nearness(still, recipe.depth(), size);
        }

        private Plane storedDepth() {
            return line().nearness(still, recipe.depth(), size.fitting(STORED_DEPTH));
        }

        private Layers layers() {
            return line().layers(still, recipe, drawn(recipe.everywhere(), size));
        }

        /** The result as it is written. */
        private PictureSheet sheet(PictureWriter.Format format) {
            PictureSheet out = new PictureSheet(size, origin, writing(format));
            if (size.equals(still.size())) {
                draw(recipe, size, (part, picture) -> out.add(picture, part.x(), part.y()));
            } else {
                out.add(smaller(), 0, 0);
            }
            return out;
        }

        /** A smaller picture is drawn larger and reduced with a better filter, which keeps more of the details. */
        private Picture smaller() {
            Size at = Reduction.drawnAt(still.size(), size);
            if (at.pixels() > MOST_DRAWN) {
                at = size.pixels() > MOST_DRAWN
                        ? size
                        : at.fitting((int) (at.longSide() * Math.sqrt((double) MOST_DRAWN / at.pixels())));
            }
            Picture out = Reduction.of(drawn(recipe, at), size);
            Double sharpening = settings.sharpening();
            if (sharpening != null && sharpening > 0) {
                Crispness.raise(out, Region.all(size), out.copy(), new Plane(size), Noise.none(), sharpening);
            }
            return out;
        }

        private Picture drawn(Recipe wanted, Size at) {
            AtomicReference<@Nullable Picture> out = new AtomicReference<>();
            draw(wanted, at, (part, picture) -> {
                // Not before there is something to put into it: until then the line needs the memory.
                Picture whole = out.updateAndGet(known -> known == null ? Picture.blank(at) : known);
                Resample.paste(picture, Objects.requireNonNull(whole), part.x(), part.y());
            });
            return Objects.requireNonNull(out.get());
        }

        private void draw(Recipe wanted, Size at, BiConsumer<Region, Picture> to) {
            RefocusLine.renderParts(still, wanted, at, stages, progress.part(0.02, 0.95), to);
        }

        private WriteSettings writing(PictureWriter.Format format) {
            return new WriteSettings(
                    format, settings.quality(), Boolean.TRUE.equals(settings.halvesColour()), carried());
        }

        private Carried carried() {
            ColourSpace space = settings.space();
            return new Carried(
                    space == null ? ColourSpace.SOURCE : space,
                    !Boolean.FALSE.equals(settings.keepsPlace()),
                    Done.of(recipe));
        }
    }

    private Run run(Delivery delivery, Shot shot, Progress progress) throws IOException {
        Recipe stored = RecipeJson.read(delivery.recipe());
        ShotStill still = materials.of(shot).frame(0);
        Size size = delivery.settings().size(shot.size());
        Origin origin = reader.inspect(files.bytes(shot.contentHash())).withSize(size);
        return new Run(delivery.settings(), still, stored.at(still.moment()), size, origin, stages, progress);
    }

    private Made depth(Run run, DepthWriter.Format format) throws IOException {
        Plane nearness = run.depth();
        FileStore.Stored file = files.put((FileStore.Writing) out -> DepthWriter.write(nearness, format, out));
        return new Made(file, pictures.put(Resample.toSize(nearness, small(run.size()))));
    }

    private Made layers(Run run, LayeredWriter.Format format) throws IOException {
        Layers layers = run.layers();
        FileStore.Stored file = files.put(
                (FileStore.Writing) out -> LayeredWriter.write(layers, run.origin(), format, run.carried(), out));
        return new Made(file, thumbnail(layers.fitting(THUMBNAIL).composed(), run.origin()));
    }

    private Made picture(Run run, PictureWriter.Format format) throws IOException {
        PictureSheet result = run.sheet(format);
        FileStore.Stored file = files.put((FileStore.Writing) result::write);
        return new Made(file, thumbnail(result.small(THUMBNAIL), run.origin()));
    }

    private Made pictureWithDepth(Run run, PictureWriter.Format format) throws IOException {
        PictureSheet result = run.sheet(format);
        Plane nearness = run.storedDepth();
        ByteArrayOutputStream jpeg = new ByteArrayOutputStream();
        result.write(jpeg);
        byte[] whole = StoredDepthWriter.store(jpeg.toByteArray(), nearness);
        return new Made(
                files.put((FileStore.Writing) out -> out.write(whole)),
                thumbnail(result.small(THUMBNAIL), run.origin()));
    }

    private static Size small(Size size) {
        return size.fitting(Math.min(THUMBNAIL, size.longSide()));
    }

    private String thumbnail(Picture seen, Origin origin) {
        Origin plain = new Origin("JPEG", seen.size(), origin.profile(), origin.curve(), origin.camera());
        return pictures.put(seen, plain, PictureWriter.Format.JPEG);
    }

    Made render(Delivery delivery, Shot shot, Progress progress) throws IOException {
        progress.at(0.02);
        Run run = run(delivery, shot, progress);
        DeliveryFormat format = delivery.settings().format();
        return switch (format.kind()) {
            case DEPTH -> depth(run, format.depth());
            case LAYERS -> layers(run, format.layers());
            case PICTURE -> picture(run, format.picture());
            case PICTURE_WITH_DEPTH -> pictureWithDepth(run, format.picture());
            case CLIP -> throw new IllegalArgumentException("a photo is no clip");
        };
    }
}
