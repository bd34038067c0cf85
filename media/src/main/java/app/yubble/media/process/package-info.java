/** Programs of the system that read and write files for us: separate processes with limits. */
@NullMarked
package app.yubble.media.process;

import org.jspecify.annotations.NullMarked;
