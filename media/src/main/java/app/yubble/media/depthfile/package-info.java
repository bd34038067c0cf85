/**
 * Depth maps in files: those that another program made (PNG, TIFF, EXR, grey or colour, 8 or 16 bit or floating point, read
 * as they stand, without tone curve; white is near), and those that a camera stored in its photo.
 */
@NullMarked
package app.yubble.media.depthfile;

import org.jspecify.annotations.NullMarked;
