/** Tells open pages what changed, by server-sent events. */
@NullMarked
package app.yubble.server.events;

import org.jspecify.annotations.NullMarked;
