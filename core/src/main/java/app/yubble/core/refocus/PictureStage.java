package app.yubble.core.refocus;

import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Resample;
import app.yubble.core.raster.Size;
import java.util.List;

/** The decoded picture at a size, in linear light. */
record PictureStage(Still still, Size size) implements StoredStage<Picture> {
    /** In pixels. Reading a file takes longer than all that follows, but a larger picture would push the rest out of the cache. */
    private static final long MOST_KEPT = 8_000_000;

    @Override
    public String name() {
        return "picture";
    }

    @Override
    public List<Stage<?>> takes() {
        return isReduced() ? List.of(kept()) : List.of();
    }

    @Override
    public List<?> reads() {
        return List.of(still.id(), size);
    }

    /** Whether it is made from the one that is kept. */
    boolean isReduced() {
        Size kept = still.kept(size);
        return !kept.equals(size) && kept.pixels() <= MOST_KEPT;
    }

    PictureStage kept() {
        return new PictureStage(still, still.kept(size));
    }

    @Override
    public Class<Picture> type() {
        return Picture.class;
    }

    @Override
    public Form<Picture> form() {
        return Form.PICTURE;
    }

    /** The one that is kept ready is in a file that is quick to read; the full one is in a file that is not. */
    @Override
    public boolean isStored() {
        boolean isReady = size.equals(still.kept(size)) && !size.equals(still.size());
        return !isReady && StoredStage.super.isStored();
    }

    @Override
    public Picture make(Results taken) {
        return isReduced() ? Resample.toSize(taken.of(kept()), size) : still.picture(size);
    }

    @Override
    public long bytes(Picture result) {
        return result.bytes();
    }
}
