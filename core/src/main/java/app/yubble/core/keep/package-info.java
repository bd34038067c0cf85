/**
 * A subject kept through a clip.
 *
 * <p>In: small pictures of the frames with their nearness, and the subject's mask at one or more of them. Out: its mask at every frame.
 * From a frame to the next the mask goes along with the picture (dense flow, there and back); what surely went along is known, what lies
 * at its border or was hidden is parted anew by colour, depth and contrast
 * ({@link app.yubble.core.pickout.ObjectCut}), so that errors do not add up. What the subject looks like is remembered from where its mask
 * was given, so that it is taken up again after something passed before it.
 *
 * <p>What comes out from behind something is taken for it where it looks as it did in the shape that was seen last, which is laid over what is
 * seen of it; elsewhere where it has its colours, and its depth or a network's matte. Paint has no border of its own and goes with the flow alone.
 *
 * <p>Masks are hard and small; whoever draws them brings them to the picture's edges
 * ({@link app.yubble.core.subject.MatteRefiner}).
 */
@NullMarked
package app.yubble.core.keep;

import org.jspecify.annotations.NullMarked;
