/** The command line: the same core as the server, without server or database. */
@NullMarked
package app.yubble.cli;

import org.jspecify.annotations.NullMarked;
