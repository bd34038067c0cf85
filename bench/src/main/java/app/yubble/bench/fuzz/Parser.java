package app.yubble.bench.fuzz;

import app.yubble.core.raster.Size;
import app.yubble.media.depthfile.CameraDepthReader;
import app.yubble.media.depthfile.DepthFileReader;
import app.yubble.media.depthfile.MaskFileReader;
import app.yubble.media.picture.PictureReader;
import app.yubble.media.picture.ToneCurve;
import app.yubble.media.picture.UnreadablePictureException;
import app.yubble.media.recipe.BadRecipeException;
import app.yubble.media.recipe.RecipeFile;
import app.yubble.media.recipe.RecipeJson;
import app.yubble.vision.NetworkDescriptor;
import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.util.function.Consumer;
import javax.imageio.ImageIO;

/** Something that reads bytes of strangers. It may refuse them in its own words; any other exception is a fault. */
public enum Parser {
    /** Size and metadata of JPEG, PNG, TIFF and WebP. */
    ORIGIN(file -> Given.READER.inspect(file)),
    /** The same with their pixels. */
    PICTURE(file -> Given.READER.read(file)),
    CAMERA_DEPTH(file -> new CameraDepthReader(Given.READER).read(file, Given.SHAPE)),
    /** Pictures and EXR. */
    DEPTH_FILE(file -> new DepthFileReader(Given.READER).read(file, Given.SHAPE)),
    MASK(file -> new MaskFileReader(Given.READER).read(file, Given.SHAPE)),
    EXIF(input -> Given.READER.inspect(Given.withSegment("Exif\0\0", input))),
    XMP(input -> Given.READER.inspect(Given.withSegment("http://ns.adobe.com/xap/1.0/\0", input))),
    ICC(ToneCurve::ofProfile),
    RECIPE(file -> RecipeJson.read(new String(file, StandardCharsets.UTF_8))),
    RECIPE_FILE(file -> RecipeFile.read(new String(file, StandardCharsets.UTF_8))),
    NETWORK_DESCRIPTOR(file -> {
        try {
            NetworkDescriptor.parse(file);
        } catch (NetworkDescriptor.BadDescriptorException refused) {
            throw new IllegalArgumentException(refused);
        }
    });

    private final Consumer<byte[]> reading;

    Parser(Consumer<byte[]> reading) {
        this.reading = reading;
    }

    /** Whether the input was taken; false when it was refused as it should be. */
    public boolean takes(byte[] input) {
        try {
            reading.accept(input);
            return true;
        } catch (UnreadablePictureException | IllegalArgumentException | BadRecipeException refused) {
            return false;
        }
    }

    /** Not of the enum itself, whose constants are made first. */
    private static final class Given {
        /** Small, so that no input takes long for its size alone. */
        static final PictureReader READER = new PictureReader(1_000_000);

        static final Size SHAPE = new Size(64, 48);

        static final int START = 2;
        static final int LONGEST_SEGMENT = 65_000;
        static final byte[] JPEG = jpeg();

        private Given() {}

        private static byte[] jpeg() {
            ByteArrayOutputStream out = new ByteArrayOutputStream();
            try {
                ImageIO.write(new BufferedImage(SHAPE.width(), SHAPE.height(), BufferedImage.TYPE_INT_RGB), "jpg", out);
            } catch (IOException e) {
                throw new UncheckedIOException(e);
            }
            return out.toByteArray();
        }

        /** A good photo with these bytes as its metadata. */
        static byte[] withSegment(String head, byte[] input) {
            byte[] name = head.getBytes(StandardCharsets.ISO_8859_1);
            int length = Math.min(LONGEST_SEGMENT, input.length);
            ByteBuffer out = ByteBuffer.allocate(JPEG.length + 4 + name.length + length);
            out.put(JPEG, 0, START).putShort((short) 0xffe1).putShort((short) (2 + name.length + length));
            out.put(name).put(input, 0, length).put(JPEG, START, JPEG.length - START);
            return out.array();
        }
    }
}
