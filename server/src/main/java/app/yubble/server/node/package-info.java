/** One of the processes that serve an installation together: its name, what it does, and how it is. */
@NullMarked
package app.yubble.server.node;

import org.jspecify.annotations.NullMarked;
