/** Every parser of what comes from outside, for a fuzzer and for what it has found. */
@NullMarked
package app.yubble.bench.fuzz;

import org.jspecify.annotations.NullMarked;
