/**
 * Reading and writing pictures: JPEG, PNG, TIFF and WebP in; JPEG, PNG and TIFF out.
 *
 * <p>In: bytes that nobody has looked at yet. Their claimed size is checked before anything is decoded, so a small file
 * cannot ask for much memory; what cannot be read whole is refused with a reason
 * ({@link app.yubble.media.picture.UnreadablePictureException}). Out: a picture in linear light in the file's own
 * primaries, upright, and its {@link app.yubble.media.picture.Origin}: profile, metadata and tone curve, with which the
 * result is written so that it opens like the source. Pictures that are not RGB with a curve per channel (CMYK, indexed,
 * profiles made of tables) are brought to sRGB first. Transparency is laid over nothing, that is, over black.
 */
@NullMarked
package app.yubble.media.picture;

import org.jspecify.annotations.NullMarked;
