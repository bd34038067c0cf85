/** What happens on any node and others have to know of, in the order in which the database was told. */
@NullMarked
package app.yubble.server.news;

import org.jspecify.annotations.NullMarked;
