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
import app.yubble.core.refocus.View;
import app.yubble.core.refocus.Viewer;
import app.yubble.media.depthfile.DepthWriter;
import app.yubble.media.depthfile.StoredDepthWriter;
import app.yubble.media.layered.LayeredWriter;
import app.yubble.media.picture.ColourSpace;
import app.yubble.media.picture.Origin;
import app.yubble.media.picture.PictureReader;
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
import org.springframework.stereotype.Component;

/** Renders what is delivered of a photo and stores it. */
@Component
class PhotoDelivery {
    /** How much larger than wanted a smaller picture is drawn before it is reduced. */
    private static final int OVERSIZE = 2;

    /** Pixels of the longer side of depth that is stored in a JPEG, as cameras do. */
    private static final int STORED_DEPTH = 2048;

    private static final int THUMBNAIL = 640;

    private final Materials materials;
    private final FileStore files;
    private final StoredPictures pictures;
    private final PictureReader reader;

    PhotoDelivery(Materials materials, FileStore files, StoredPictures pictures, PictureReader reader) {
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

    /** One run: what the steps of it share. */
    private final class Run {
        private final Delivery delivery;
        private final ShotStill still;
        private final Recipe recipe;
        private final Size size;
        private final Origin origin;
        private final Progress progress;
        // A cache of its own: the stages of one large picture would push everybody's previews out of the shared one.
        private final RefocusLine line = new RefocusLine(StageCache.keepingAll());

        Run(Delivery delivery, Shot shot, Progress progress) throws IOException {
            this.delivery = delivery;
            this.progress = progress;
            Recipe stored = RecipeJson.read(delivery.recipe());
            still = materials.of(shot).frame(0);
            recipe = stored.at(still.moment());
            Integer longest = delivery.settings().longestSide();
            size = longest == null ? shot.size() : shot.size().fitting(longest);
            origin = reader.inspect(files.bytes(shot.contentHash())).withSize(size);
        }

        private Made depth(DepthWriter.Format format) throws IOException {
            Plane nearness = line.nearness(still, recipe.depth(), size);
            progress.at(0.8);
            FileStore.Stored file = files.put((FileStore.Writing) out -> DepthWriter.write(nearness, format, out));
            Plane small = Resample.toSize(nearness, size.fitting(THUMBNAIL));
            return new Made(file, pictures.put(small));
        }

        private Made layers(LayeredWriter.Format format) throws IOException {
            Layers layers = line.layers(still, recipe, drawn(recipe.everywhere(), size));
            FileStore.Stored file =
                    files.put((FileStore.Writing) out -> LayeredWriter.write(layers, noted(), format, out));
            return new Made(file, thumbnail(layers.composed()));
        }

        private Made picture(PictureWriter.Format format, boolean withDepth) throws IOException {
            Picture result = reduced();
            WriteSettings settings = writing(format);
            FileStore.Stored file = withDepth
                    ? files.put((FileStore.Writing) out -> out.write(withDepth(result, settings)))
                    : files.put((FileStore.Writing) out -> PictureWriter.write(result, origin, settings, out));
            return new Made(file, thumbnail(result));
        }

        private WriteSettings writing(PictureWriter.Format format) {
            DeliverySettings wanted = delivery.settings();
            ColourSpace space = wanted.space();
            return new WriteSettings(
                    format,
                    wanted.quality(),
                    Boolean.TRUE.equals(wanted.halvesColour()),
                    space == null ? ColourSpace.SOURCE : space,
                    !Boolean.FALSE.equals(wanted.keepsPlace()),
                    Done.of(recipe));
        }

        private Origin noted() {
            boolean keeps = !Boolean.FALSE.equals(delivery.settings().keepsPlace());
            return origin.withNotes((keeps ? origin.notes() : origin.notes().withoutPlace()).withDone(Done.of(recipe)));
        }

        private byte[] withDepth(Picture result, WriteSettings settings) throws IOException {
            ByteArrayOutputStream jpeg = new ByteArrayOutputStream();
            PictureWriter.write(result, origin, settings, jpeg);
            return StoredDepthWriter.store(
                    jpeg.toByteArray(), line.nearness(still, recipe.depth(), size.fitting(STORED_DEPTH)));
        }

        private Picture drawn(Recipe wanted, Size at) {
            line.nearness(still, wanted.depth(), at);
            progress.at(0.15);
            return line.render(new Viewer(), still, wanted, View.of(at), progress.part(0.15, 0.9));
        }

        /** A smaller picture is drawn larger and reduced with a better filter, which keeps more of the details. */
        private Picture reduced() {
            Size full = still.size();
            Size larger = full.fitting(Math.min(full.longSide(), OVERSIZE * size.longSide()));
            Picture out = Reduction.of(drawn(recipe, size.equals(full) ? full : larger), size);
            Double sharpening = delivery.settings().sharpening();
            if (sharpening != null && sharpening > 0) {
                Crispness.raise(out, Region.all(size), out.copy(), new Plane(size), Noise.none(), sharpening);
            }
            return out;
        }

        private String thumbnail(Picture result) {
            Size small = size.fitting(Math.min(THUMBNAIL, size.longSide()));
            Picture seen = Resample.toSize(result, small);
            Origin plain = new Origin("JPEG", small, origin.profile(), origin.curve(), origin.camera());
            return pictures.put(seen, plain, PictureWriter.Format.JPEG);
        }
    }

    Made render(Delivery delivery, Shot shot, Progress progress) throws IOException {
        progress.at(0.02);
        Run run = new Run(delivery, shot, progress);
        DeliveryFormat format = delivery.settings().format();
        return switch (format.kind()) {
            case DEPTH -> run.depth(format.depth());
            case LAYERS -> run.layers(format.layers());
            case PICTURE -> run.picture(format.picture(), false);
            case PICTURE_WITH_DEPTH -> run.picture(format.picture(), true);
            case CLIP -> throw new IllegalArgumentException("a photo is no clip");
        };
    }
}
