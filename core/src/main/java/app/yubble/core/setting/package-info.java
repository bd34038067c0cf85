/**
 * What a recipe's settings are: each is declared once, on the component of the record that holds it. Its checks, its form in files, the
 * HTTP interface, the page's controls and docs/formats.md are derived from the declaration.
 */
@NullMarked
package app.yubble.core.setting;

import org.jspecify.annotations.NullMarked;
