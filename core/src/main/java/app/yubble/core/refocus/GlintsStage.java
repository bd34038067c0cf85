package app.yubble.core.refocus;

import app.yubble.core.lens.CutLight;
import app.yubble.core.lens.Glints;
import app.yubble.core.lens.Lift;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import java.util.List;

/** How much each pixel's light is lifted before it is blurred. */
record GlintsStage(PictureStage picture, Glints glints) implements StoredStage<Lift> {
    private static final Form<Lift> FORM = Form.of(Lift::written, Lift::read);

    @Override
    public Still still() {
        return picture.still();
    }

    @Override
    public Form<Lift> form() {
        return FORM;
    }

    @Override
    public String name() {
        return "glints";
    }

    @Override
    public List<Stage<?>> takes() {
        return List.of(picture);
    }

    @Override
    public List<?> reads() {
        return List.of(glints, picture.still().knowsCutLight());
    }

    @Override
    public Class<Lift> type() {
        return Lift.class;
    }

    @Override
    public Lift make(Results taken) {
        return Lift.of(lifts(taken));
    }

    @Override
    public long bytes(Lift result) {
        return result.bytes();
    }

    private Plane lifts(Results taken) {
        Picture seen = taken.of(picture);
        Still still = picture.still();
        if (!still.knowsCutLight()) {
            return glints.lift(seen);
        }
        boolean isFull = picture.size().equals(still.size());
        return glints.lift(seen, isFull ? CutLight.of(seen) : still.cutLight(picture.size()));
    }
}
