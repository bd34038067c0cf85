/**
 * Depth maps as pictures: grey or colour, 8 or 16 bit, read as they stand, without tone curve; white is near.
 */
@NullMarked
package app.yubble.media.depthfile;

import org.jspecify.annotations.NullMarked;
