/**
 * Parts an object from what is around it.
 *
 * <p>In: a picture, its nearness, and for every pixel whether it surely belongs to the object, surely does not, or is open.
 * Out: 1 on the object, 0 elsewhere, pixel by pixel; soft edges are made later.
 *
 * <p>{@link app.yubble.core.pickout.ObjectCut} learns what both sides look like
 * ({@link app.yubble.core.pickout.Mixture}) and parts them where that costs least
 * ({@link app.yubble.core.pickout.GridCut}). It needs some pixels that are sure not to belong to the object; without any
 * that are sure to, all open ones are taken for it at first.
 */
@NullMarked
package app.yubble.core.pickout;

import org.jspecify.annotations.NullMarked;
