/**
 * Time. A clip is a shot with many moments, a photo has one. The line from a shot to a result knows no time: material answers
 * for a moment with its picture and depth, and what changes over time answers with plain settings at a moment.
 */
@NullMarked
package app.yubble.core.clip;

import org.jspecify.annotations.NullMarked;
