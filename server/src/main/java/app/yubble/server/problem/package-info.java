/** Faults and how they look over HTTP: problem details (RFC 9457). */
@NullMarked
package app.yubble.server.problem;

import org.jspecify.annotations.NullMarked;
