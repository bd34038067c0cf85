/**
 * The line from a shot to a result. {@link app.yubble.core.refocus.Line} lists its stages in their order: picture, depth, snapped,
 * trimmed, laddered, painted, defocus field, lens, revealed, opacity.
 *
 * <p>In: a {@link app.yubble.core.refocus.Still}, which is one moment of a shot's material, and a recipe. Out: the picture, or a
 * part of it, at any size. Each {@linkplain app.yubble.core.refocus.Stage stage} is a pure function of the stages that it takes and
 * its own part of the recipe, and its key is a hash of exactly those.
 *
 * <ol>
 *   <li>Up to laddered nearness, stages are made whole and kept in the {@link app.yubble.core.refocus.StageCache}: turning the
 *       aperture never runs depth again.
 *   <li>From the painted nearness on, stages are local. A {@link app.yubble.core.refocus.Viewer} keeps their last results and makes
 *       anew only as much as the change of a recipe reaches.
 * </ol>
 *
 * <p>The same stages make the preview (a smaller picture) and the delivery (the full one); lengths in the recipe are relative to the
 * picture, so the two look alike. What a viewer renews in part differs from what is made at once by at most some steps of an
 * 8-bit file, where hidden background is filled in from less around it.
 */
@NullMarked
package app.yubble.core.refocus;

import org.jspecify.annotations.NullMarked;
