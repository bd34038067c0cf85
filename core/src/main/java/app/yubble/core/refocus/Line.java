package app.yubble.core.refocus;

import app.yubble.core.raster.Size;
import app.yubble.core.recipe.Recipe;
import app.yubble.core.shape.BlurShape;
import java.util.List;

/**
 * The stages from a still to a result, in their order. What follows the lens runs also when nothing is blurred.
 *
 * @param laddered nearness before touch-ups; it holds the picture, the depth map and nearness on the picture's edges
 * @param result the last one
 */
record Line(
        PictureStage picture,
        LadderedStage laddered,
        PaintedStage painted,
        DefocusStage defocus,
        GlintsStage glints,
        AirStage air,
        LensStage lens,
        GrainStage finished,
        RevealedStage revealed,
        OpacityStage result) {
    /**
     * @param painted touch-ups of the recipe that change depth, with what they paint
     * @param reveals touch-ups that give back the photo
     * @param radiusPerNearness blur radius in pixels a unit of nearness outside the band
     */
    static Line of(
            Still still,
            Recipe recipe,
            Size size,
            double radiusPerNearness,
            List<Painted> painted,
            List<Painted> reveals) {
        LadderedStage laddered = LadderedStage.of(still, recipe.depth(), size);
        PictureStage picture = laddered.picture();
        PaintedStage nearness = new PaintedStage(laddered, painted, recipe.band());
        DefocusStage defocus = new DefocusStage(
                nearness,
                recipe.band(),
                recipe.gain(),
                radiusPerNearness,
                recipe.shapes().stream().filter(BlurShape::acts).toList());
        GlintsStage glints = new GlintsStage(picture, recipe.glints());
        SceneColourStage colour = new SceneColourStage(picture, laddered);
        AirStage air = new AirStage(picture, nearness, defocus, colour, recipe.atmosphere());
        LensStage lens = new LensStage(air, glints, defocus, recipe.disc());
        NoiseStage noise = NoiseStage.of(picture);
        CrispStage crisp =
                CrispStage.of(lens, picture, defocus, noise, recipe.finish().crispness());
        GrainStage finished =
                new GrainStage(crisp, defocus, noise, recipe.finish().grain(), still.pattern());
        RevealedStage revealed = new RevealedStage(finished, picture, reveals);
        OpacityStage result = new OpacityStage(revealed, picture, recipe.opacity());
        return new Line(picture, laddered, nearness, defocus, glints, air, lens, finished, revealed, result);
    }
}
