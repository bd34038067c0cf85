/** Long work on JobRunr. */
@NullMarked
package app.yubble.server.jobs;

import org.jspecify.annotations.NullMarked;
