/** Reading and editing ONNX files by the open onnx.proto. */
@NullMarked
package app.yubble.vision.onnx;

import org.jspecify.annotations.NullMarked;
