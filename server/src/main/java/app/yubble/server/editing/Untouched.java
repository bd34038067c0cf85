package app.yubble.server.editing;

import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Progress;
import app.yubble.core.raster.Size;
import app.yubble.core.refocus.RefocusLine;
import app.yubble.core.refocus.StageKey;
import app.yubble.core.refocus.StageStore;
import app.yubble.media.picture.Origin;
import app.yubble.media.picture.PictureWriter;
import app.yubble.server.shoot.Shot;
import app.yubble.server.shoot.ShotStill;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.ByteBuffer;
import java.util.UUID;
import org.springframework.stereotype.Component;

/** Pictures for pages as JPEG. The untouched photo at a size is written once: every opening of the Bench asks for it. */
@Component
class Untouched {
    private static final double QUALITY = 0.9;

    private final RefocusLine line;
    private final StageStore stages;
    private final Origins origins;
    private final Drawing drawing;

    Untouched(RefocusLine line, StageStore stages, Origins origins, Drawing drawing) {
        this.line = line;
        this.stages = stages;
        this.origins = origins;
        this.drawing = drawing;
    }

    /** All of a still. */
    byte[] whole(UUID person, Shot shot, ShotStill still, Size size) {
        if (!still.isStored()) {
            return jpeg(picture(person, still, size), shot);
        }
        StageKey key = new StageKey("photo " + size + " " + QUALITY);
        ByteBuffer known = stages.find(still.id(), key);
        if (known != null) {
            byte[] out = new byte[known.remaining()];
            known.get(out);
            return out;
        }
        byte[] made = jpeg(picture(person, still, size), shot);
        stages.keep(still.id(), key, out -> out.write(ByteBuffer.wrap(made)));
        return made;
    }

    private Picture picture(UUID person, ShotStill still, Size size) {
        return drawing.inTurn(person, size, Progress.NONE, () -> line.picture(still, size));
    }

    /** The profile stays with it, so that the browser shows the photo's own colours. */
    byte[] jpeg(Picture picture, Shot shot) {
        try {
            Origin origin = origins.of(shot);
            ByteArrayOutputStream out = new ByteArrayOutputStream(1 << 18);
            Origin plain = new Origin("JPEG", picture.size(), origin.profile(), origin.curve(), origin.camera());
            PictureWriter.write(picture, plain, PictureWriter.Format.JPEG, QUALITY, out);
            return out.toByteArray();
        } catch (IOException e) {
            throw new UncheckedIOException(e.getMessage(), e);
        }
    }
}
