package app.yubble.media.picture;

import app.yubble.core.raster.Picture;

/** A picture in linear light and what its file said about it. */
public record DecodedPicture(Picture picture, Origin origin) {}
