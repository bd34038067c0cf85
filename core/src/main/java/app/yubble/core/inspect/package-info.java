/**
 * Looks for places where a depth map is probably wrong.
 *
 * <p>In: a picture, its nearness and what is blurred how much. Out: places, the most visible first, each with a touch-up that
 * would put it right. A place is suspected where depth changes though the picture shows no edge there, and where giving a
 * piece the depth of its neighbour would leave changes of depth only where the picture has edges.
 *
 * <p>{@link app.yubble.core.inspect.Segments} parts the picture into areas of one look,
 * {@link app.yubble.core.inspect.Fragments} parts those by depth, {@link app.yubble.core.inspect.Suspicion} judges the
 * pieces; {@link app.yubble.core.inspect.Bars} follows thin parts, {@link app.yubble.core.inspect.Undecided} reads the
 * subject's matte, and {@link app.yubble.core.inspect.Dabs} covers a piece with paint. What has no trace in depth at all, a
 * mast that is lost from end to end, is not found.
 */
@NullMarked
package app.yubble.core.inspect;

import org.jspecify.annotations.NullMarked;
