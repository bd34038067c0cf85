/** Trials that a running server has to stand: killed at any moment, fed with damaged files, asked by many at once. */
@NullMarked
package app.yubble.bench.endure;

import org.jspecify.annotations.NullMarked;
