package app.yubble.server.follow;

import app.yubble.core.follow.TrackPoint;
import java.nio.ByteBuffer;
import java.util.ArrayList;
import java.util.List;

/** A track as it is stored: for each frame two shares of the picture's sides, and a byte that says how sure it is. */
final class TrackFile {
    /** Two numbers of four bytes and one byte. */
    private static final int FRAME = 9;

    private TrackFile() {}

    /** @param points in shares of the picture's sides */
    static byte[] write(List<TrackPoint> points) {
        ByteBuffer out = ByteBuffer.allocate(FRAME * points.size());
        for (TrackPoint each : points) {
            out.putFloat((float) each.x()).putFloat((float) each.y());
            out.put((byte) (each.sure() ? 2 : each.visible() ? 1 : 0));
        }
        return out.array();
    }

    static List<TrackPoint> read(byte[] bytes) {
        ByteBuffer in = ByteBuffer.wrap(bytes);
        List<TrackPoint> out = new ArrayList<>(bytes.length / FRAME);
        while (in.remaining() >= FRAME) {
            float x = in.getFloat();
            float y = in.getFloat();
            int state = in.get();
            out.add(new TrackPoint(x, y, state > 0, state > 1));
        }
        return List.copyOf(out);
    }
}
