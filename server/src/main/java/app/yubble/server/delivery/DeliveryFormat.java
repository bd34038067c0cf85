package app.yubble.server.delivery;

import app.yubble.media.clip.ClipFormat;
import app.yubble.media.picture.PictureWriter;
import org.jspecify.annotations.Nullable;

/** What a shot can be delivered as: photos as a picture, clips as a film or as pictures in a zip. */
enum DeliveryFormat {
    JPEG(PictureWriter.Format.JPEG),
    PNG8(PictureWriter.Format.PNG8),
    PNG16(PictureWriter.Format.PNG16),
    TIFF16(PictureWriter.Format.TIFF16),
    MP4(ClipFormat.MP4),
    VP9(ClipFormat.VP9),
    AV1(ClipFormat.AV1),
    FFV1(ClipFormat.FFV1),
    PNG_FRAMES(ClipFormat.PNG_FRAMES),
    TIFF_FRAMES(ClipFormat.TIFF_FRAMES),
    DEPTH_FFV1(ClipFormat.DEPTH_FFV1),
    DEPTH_MP4(ClipFormat.DEPTH_MP4),
    DEPTH_FRAMES(ClipFormat.DEPTH_FRAMES);

    private final PictureWriter.@Nullable Format picture;
    private final @Nullable ClipFormat clip;

    DeliveryFormat(PictureWriter.Format picture) {
        this.picture = picture;
        this.clip = null;
    }

    DeliveryFormat(ClipFormat clip) {
        this.picture = null;
        this.clip = clip;
    }

    boolean isForClips() {
        return clip != null;
    }

    PictureWriter.Format picture() {
        if (picture == null) {
            throw new IllegalStateException(this + " is no picture");
        }
        return picture;
    }

    ClipFormat clip() {
        if (clip == null) {
            throw new IllegalStateException(this + " is no film");
        }
        return clip;
    }

    String ending() {
        return clip == null ? picture().ending() : clip.ending();
    }

    String mediaType() {
        return clip == null ? picture().mediaType() : clip.mediaType();
    }
}
