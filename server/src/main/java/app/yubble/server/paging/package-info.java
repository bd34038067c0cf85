/** Lists that are given a page at a time. */
@NullMarked
package app.yubble.server.paging;

import org.jspecify.annotations.NullMarked;
