package app.yubble.server.delivery;

import app.yubble.media.clip.ClipFormat;
import app.yubble.media.depthfile.DepthWriter;
import app.yubble.media.layered.LayeredWriter;
import app.yubble.media.picture.FileType;
import app.yubble.media.picture.PictureWriter;
import org.jspecify.annotations.Nullable;

/** What a shot can be delivered as: photos as a picture, as layers or as depth, clips as a film or as pictures in a zip. */
enum DeliveryFormat {
    JPEG(PictureWriter.Format.JPEG),
    JPEG_DEPTH(PictureWriter.Format.JPEG),
    PNG8(PictureWriter.Format.PNG8),
    PNG16(PictureWriter.Format.PNG16),
    TIFF8(PictureWriter.Format.TIFF8),
    TIFF16(PictureWriter.Format.TIFF16),
    WEBP(PictureWriter.Format.WEBP),
    AVIF(PictureWriter.Format.AVIF),
    OPENRASTER(LayeredWriter.Format.OPENRASTER),
    TIFF_PAGES(LayeredWriter.Format.TIFF_PAGES),
    DEPTH_PNG16(DepthWriter.Format.PNG16),
    DEPTH_TIFF32(DepthWriter.Format.TIFF32),
    DEPTH_EXR32(DepthWriter.Format.EXR32),
    MP4(ClipFormat.MP4),
    VP9(ClipFormat.VP9),
    AV1(ClipFormat.AV1),
    FFV1(ClipFormat.FFV1),
    PNG_FRAMES(ClipFormat.PNG_FRAMES),
    TIFF_FRAMES(ClipFormat.TIFF_FRAMES),
    DEPTH_FFV1(ClipFormat.DEPTH_FFV1),
    DEPTH_MP4(ClipFormat.DEPTH_MP4),
    DEPTH_FRAMES(ClipFormat.DEPTH_FRAMES);

    /** What is made. */
    enum Kind {
        PICTURE,
        PICTURE_WITH_DEPTH,
        LAYERS,
        DEPTH,
        CLIP
    }

    private final PictureWriter.@Nullable Format picture;
    private final LayeredWriter.@Nullable Format layers;
    private final DepthWriter.@Nullable Format depth;
    private final @Nullable ClipFormat clip;
    private final FileType type;

    DeliveryFormat(PictureWriter.Format picture) {
        this(picture, null, null, null, picture.type());
    }

    DeliveryFormat(LayeredWriter.Format layers) {
        this(null, layers, null, null, layers.type());
    }

    DeliveryFormat(DepthWriter.Format depth) {
        this(null, null, depth, null, depth.type());
    }

    DeliveryFormat(ClipFormat clip) {
        this(null, null, null, clip, new FileType(clip.mediaType(), clip.ending()));
    }

    DeliveryFormat(
            PictureWriter.@Nullable Format picture,
            LayeredWriter.@Nullable Format layers,
            DepthWriter.@Nullable Format depth,
            @Nullable ClipFormat clip,
            FileType type) {
        this.picture = picture;
        this.layers = layers;
        this.depth = depth;
        this.clip = clip;
        this.type = type;
    }

    Kind kind() {
        if (picture != null) {
            return this == JPEG_DEPTH ? Kind.PICTURE_WITH_DEPTH : Kind.PICTURE;
        }
        if (layers != null) {
            return Kind.LAYERS;
        }
        return depth != null ? Kind.DEPTH : Kind.CLIP;
    }

    boolean isForClips() {
        return clip != null;
    }

    PictureWriter.Format picture() {
        return there(picture);
    }

    LayeredWriter.Format layers() {
        return there(layers);
    }

    DepthWriter.Format depth() {
        return there(depth);
    }

    ClipFormat clip() {
        return there(clip);
    }

    private <T> T there(@Nullable T format) {
        if (format == null) {
            throw new IllegalStateException(this + " is something else");
        }
        return format;
    }

    String ending() {
        return type.ending();
    }

    String mediaType() {
        return type.mediaType();
    }
}
