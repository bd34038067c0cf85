/** How the HTTP interface speaks: names in JSON, and the OpenAPI document, which is derived from the records that requests and answers are. */
@NullMarked
package app.yubble.server.contract;

import org.jspecify.annotations.NullMarked;
