/** Many people at once: they sign in, bring a photo, drag, paint and deliver, and what that takes is measured. */
@NullMarked
package app.yubble.load;

import org.jspecify.annotations.NullMarked;
