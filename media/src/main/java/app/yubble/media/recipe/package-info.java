/**
 * The recipe file: JSON, versioned, described in docs/formats.md. Reading is strict: an unknown version, an unknown
 * field or a value outside its range is refused, and all faults are named at once.
 */
@NullMarked
package app.yubble.media.recipe;

import org.jspecify.annotations.NullMarked;
