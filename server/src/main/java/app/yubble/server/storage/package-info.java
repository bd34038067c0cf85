/** Files by the hash of their content. */
@NullMarked
package app.yubble.server.storage;

import org.jspecify.annotations.NullMarked;
