/**
 * Networks behind core's interfaces, on ONNX Runtime: the subject's matte, our own depth head, and any other depth network
 * that has a descriptor. Sessions are loaded on first use and kept.
 */
@NullMarked
package app.yubble.vision;

import org.jspecify.annotations.NullMarked;
