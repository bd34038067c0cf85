/** What set-up does once: joins the downloaded weights, checks them, derives the variants that run fast here. */
@NullMarked
package app.yubble.vision.setup;

import org.jspecify.annotations.NullMarked;
