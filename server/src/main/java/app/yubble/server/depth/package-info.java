/** Depth of shots: the estimators, the jobs that run them, and maps that are brought in. */
@NullMarked
package app.yubble.server.depth;

import org.jspecify.annotations.NullMarked;
