/**
 * The ladder: things that somebody clicked from the nearest to the farthest, whose order the depth map follows.
 *
 * <p>In: {@link app.yubble.core.ladder.Rung}s, and nearness and the picture where each was clicked. Out: by how much nearness moves at every
 * pixel. Two steps: the {@link app.yubble.core.ladder.Heights} to which the rungs have to move, as little as their order allows, and the
 * {@link app.yubble.core.ladder.Ladder} that takes along what looks like them, lies near them and stands as far.
 *
 * <p>Counter-example: an order that the map has already, with room between the rungs, changes nothing at all.
 */
@NullMarked
package app.yubble.core.ladder;

import org.jspecify.annotations.NullMarked;
