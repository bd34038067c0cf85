/**
 * The line from a shot to a result: decode, depth, nearness, defocus field, lens render, opacity.
 *
 * <p>Each stage is a pure function of the stage before it and its own part of the recipe, and is cached under the hash
 * of exactly those ({@link app.yubble.core.refocus.StageCache}); turning the aperture therefore never runs depth again.
 * The same stages make the preview (a smaller picture) and the delivery (the full one); lengths in the recipe are
 * relative to the picture, so the two look alike.
 */
@NullMarked
package app.yubble.core.refocus;

import org.jspecify.annotations.NullMarked;
