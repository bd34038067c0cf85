/**
 * Quality scorecards and benchmarks of the hot paths: {@code ./yubble bench depth} and {@code ./yubble bench PATTERN} for JMH.
 */
@NullMarked
package app.yubble.bench;

import org.jspecify.annotations.NullMarked;
