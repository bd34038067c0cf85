/** Demo account and data. */
@NullMarked
package app.yubble.server.demo;

import org.jspecify.annotations.NullMarked;
