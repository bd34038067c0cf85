/** What is kept in memory because it may soon be wanted again. */
@NullMarked
package app.yubble.server.memory;

import org.jspecify.annotations.NullMarked;
