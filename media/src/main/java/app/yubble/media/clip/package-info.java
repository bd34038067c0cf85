/**
 * Clips, read and written by Debian's ffmpeg as separate processes: with a whitelist of protocols and containers, limits on memory,
 * time and what is written, arguments as a list, frames over pipes.
 *
 * <p>What goes in is a file. {@link app.yubble.media.clip.ClipProbe} says what is in it, {@link app.yubble.media.clip.ClipScan}
 * goes through it once and finds the time of every frame, the cuts, a proxy and thumbnails, and
 * {@link app.yubble.media.clip.ClipFrames} reads frames as linear light. What comes out is a stretch of frames at a time
 * ({@link app.yubble.media.clip.StretchWriter}), which {@link app.yubble.media.clip.ClipJoiner} joins with the sound.
 *
 * <p>A frame's time is in millionths of a second from the clip's first frame. Colours stay in the clip's own primaries; the way
 * from code values to light is the clip's own transfer.
 */
@NullMarked
package app.yubble.media.clip;

import org.jspecify.annotations.NullMarked;
