package app.yubble.server.editing;

import app.yubble.core.raster.Size;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import org.springframework.http.CacheControl;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;

/** Maps of numbers as answers: width and height as 32-bit integers, then a number for each pixel, little-endian. */
final class NumberMaps {
    /** Longer side of maps for the page: the plan and the tint need no more. */
    static final int SIDE = 1024;

    private NumberMaps() {}

    /** Room for a map, its width and height written. */
    static ByteBuffer headed(Size size, int bytesPerPixel) {
        return ByteBuffer.allocate((int) (2 * Integer.BYTES + bytesPerPixel * size.pixels()))
                .order(ByteOrder.LITTLE_ENDIAN)
                .putInt(size.width())
                .putInt(size.height());
    }

    static ResponseEntity<byte[]> answer(ByteBuffer map, CacheControl kept) {
        return ResponseEntity.ok()
                .contentType(MediaType.APPLICATION_OCTET_STREAM)
                .cacheControl(kept)
                .body(map.array());
    }
}
