/** Points that are followed through clips, and the depth under them. */
@NullMarked
package app.yubble.server.follow;

import org.jspecify.annotations.NullMarked;
