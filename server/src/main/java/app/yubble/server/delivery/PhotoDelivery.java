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
import app.yubble.media.picture.Carried;
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

    /**
     * One run. Its line is let go of before anything is written: both together do not fit into memory.
     *
     * @param size of the result
     */
    private record Run(
            DeliverySettings settings, ShotStill still, Recipe recipe, Size size, Origin origin, Progress progress) {
        // A cache of its own: the stages of one large picture would push everybody's previews out of the shared one.
        private static RefocusLine line() {
            return new RefocusLine(StageCache.keepingAll());
        }

        private Plane depth() {
            return line().nearness(still, recipe.depth(), size);
        }

        private Plane storedDepth() {
            return line().nearness(still, recipe.depth(), size.fitting(STORED_DEPTH));
        }

        private Layers layers() {
            RefocusLine line = line();
            return line.layers(still, recipe, drawn(line, recipe.everywhere(), size));
        }

        /** A smaller picture is drawn larger and reduced with a better filter, which keeps more of the details. */
        private Picture picture() {
            Picture out = Reduction.of(drawn(line(), recipe, Reduction.drawnAt(still.size(), size)), size);
            Double sharpening = settings.sharpening();
            if (sharpening != null && sharpening > 0 && !size.equals(still.size())) {
                Crispness.raise(out, Region.all(size), out.copy(), new Plane(size), Noise.none(), sharpening);
            }
            return out;
        }

        private Picture drawn(RefocusLine line, Recipe wanted, Size at) {
            line.nearness(still, wanted.depth(), at);
            progress.at(0.15);
            return line.render(new Viewer(), still, wanted, View.of(at), progress.part(0.15, 0.9));
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
        Integer longest = delivery.settings().longestSide();
        Size size = longest == null ? shot.size() : shot.size().fitting(longest);
        Origin origin = reader.inspect(files.bytes(shot.contentHash())).withSize(size);
        return new Run(delivery.settings(), still, stored.at(still.moment()), size, origin, progress);
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
        Picture result = run.picture();
        FileStore.Stored file = files.put(
                (FileStore.Writing) out -> PictureWriter.write(result, run.origin(), run.writing(format), out));
        return new Made(file, thumbnail(result, run.origin()));
    }

    private Made pictureWithDepth(Run run, PictureWriter.Format format) throws IOException {
        Picture result = run.picture();
        Plane nearness = run.storedDepth();
        ByteArrayOutputStream jpeg = new ByteArrayOutputStream();
        PictureWriter.write(result, run.origin(), run.writing(format), jpeg);
        byte[] whole = StoredDepthWriter.store(jpeg.toByteArray(), nearness);
        return new Made(files.put((FileStore.Writing) out -> out.write(whole)), thumbnail(result, run.origin()));
    }

    private static Size small(Size size) {
        return size.fitting(Math.min(THUMBNAIL, size.longSide()));
    }

    private String thumbnail(Picture result, Origin origin) {
        Picture seen = Resample.toSize(result, small(result.size()));
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
