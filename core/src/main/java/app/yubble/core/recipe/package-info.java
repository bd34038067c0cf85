/**
 * Everything that turns a shot into a result, as one immutable value. Each part validates itself on construction; a
 * recipe that exists can be rendered. The file format is docs/formats.md, read and written by media.
 */
@NullMarked
package app.yubble.core.recipe;

import org.jspecify.annotations.NullMarked;
