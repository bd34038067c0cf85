/**
 * The main subject: a soft matte, refined to the picture's edges, and the separate things in it.
 *
 * <p>A {@link app.yubble.core.subject.SubjectFinder} answers with a matte of its own size that has the picture's shape;
 * {@link app.yubble.core.subject.MatteRefiner} brings it to any size of the picture.
 */
@NullMarked
package app.yubble.core.subject;

import org.jspecify.annotations.NullMarked;
