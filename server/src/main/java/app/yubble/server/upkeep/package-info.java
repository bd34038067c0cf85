/** What whoever runs a server does beside it: backups, restoring them, looking whether all stored files are there and whole. */
@NullMarked
package app.yubble.server.upkeep;

import org.jspecify.annotations.NullMarked;
