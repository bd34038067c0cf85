/** How the installation is, for whoever runs it. */
@NullMarked
package app.yubble.server.state;

import org.jspecify.annotations.NullMarked;
