package app.yubble.media.depthfile;

import app.yubble.core.depth.DepthShapeException;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Size;
import app.yubble.media.picture.HeifTools;
import app.yubble.media.picture.JpegSegments;
import app.yubble.media.picture.PictureFile;
import app.yubble.media.picture.PictureReader;
import app.yubble.media.picture.UnreadablePictureException;
import app.yubble.media.picture.Upright;
import com.adobe.internal.xmp.XMPException;
import com.adobe.internal.xmp.XMPMeta;
import com.adobe.internal.xmp.XMPMetaFactory;
import java.util.Base64;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/**
 * Finds the depth that a camera stored in a photo, by open formats: the depth map metadata of XMP ("GDepth", also in
 * extended packets), and depth pictures that follow the photo in one JPEG file, listed by its multi-picture index (CIPA
 * DC-007) or by a container directory in its metadata. Depth of HEIF and AVIF is {@link HeifTools}' work.
 *
 * <p>The metadata's values count from near (0) to far (1): with {@code RangeInverse} inverse distance is linear in them,
 * with {@code RangeLinear} distance is.
 */
public final class CameraDepthReader {
    private static final String DEPTH = "http://ns.google.com/photos/1.0/depthmap/";
    private static final String NOTE = "http://ns.adobe.com/xmp/note/";
    private static final String METRES = "m";

    private final PictureReader pictures;

    public CameraDepthReader(PictureReader pictures) {
        this.pictures = pictures;
    }

    /**
     * @param photo the whole file
     * @param upright size of the photo as it is shown
     * @return empty when the file holds no depth
     * @throws UnreadablePictureException when it holds depth that cannot be used; the message says why
     */
    public Optional<CameraDepth> read(byte[] photo, Size upright) {
        return read(PictureFile.of(photo), upright);
    }

    /** The same of a file that may have been opened before. */
    public Optional<CameraDepth> read(PictureFile file, Size upright) {
        if (file.isHeif()) {
            return auxiliary(file, upright);
        }
        byte[] photo = file.bytes();
        if (photo.length < 4 || (photo[0] & 0xff) != 0xff || (photo[1] & 0xff) != 0xd8) {
            return Optional.empty();
        }
        try {
            Optional<CameraDepth> found = described(photo);
            if (found.isEmpty()) {
                found = new DepthPictures(pictures, photo).find(upright);
            }
            return found.map(depth -> fitting(depth, photo, upright));
        } catch (UnreadablePictureException | IllegalArgumentException fault) {
            throw new UnreadablePictureException(
                    "the depth stored in this photo cannot be used: " + fault.getMessage(), fault);
        } catch (XMPException fault) {
            throw new UnreadablePictureException(
                    "the depth stored in this photo cannot be used: its metadata is damaged", fault);
        }
    }

    // The converter has turned the photo but not its depth; brighter is nearer in the usual representations.
    private Optional<CameraDepth> auxiliary(PictureFile photo, Size upright) {
        byte[] stored = photo.converted().depth();
        if (stored == null) {
            return Optional.empty();
        }
        Plane plane = DepthFileReader.samples(pictures.readPlain(stored));
        Plane turned = plane.size().hasShapeOf(upright) ? plane : Upright.of(plane, photo.bytes());
        if (!turned.size().hasShapeOf(upright) || turned.range().span() == 0) {
            throw new UnreadablePictureException("the depth stored in this photo cannot be used: it is " + plane.size()
                    + " for a photo of " + upright + ", or all its pixels are equal");
        }
        return Optional.of(new CameraDepth(turned, "auxiliary picture", null, null));
    }

    private static CameraDepth fitting(CameraDepth depth, byte[] photo, Size upright) {
        Plane turned = Upright.of(depth.nearness(), photo);
        if (!turned.size().hasShapeOf(upright)) {
            throw new DepthShapeException(turned.size(), upright);
        }
        if (turned.range().span() == 0) {
            throw new UnreadablePictureException("all its pixels are equal");
        }
        return new CameraDepth(turned, depth.format(), depth.nearMetres(), depth.farMetres());
    }

    private Optional<CameraDepth> described(byte[] photo) throws XMPException {
        byte[] packet = JpegParts.xmp(photo, 0);
        if (packet.length == 0) {
            return Optional.empty();
        }
        XMPMeta main = XMPMetaFactory.parseFromBuffer(packet);
        String format = main.getPropertyString(DEPTH, "Format");
        String data = main.getPropertyString(DEPTH, "Data");
        String identifier = main.getPropertyString(NOTE, "HasExtendedXMP");
        if (data == null && identifier != null && (format != null || mentionsDepth(photo))) {
            byte[] extended = JpegParts.extendedXmp(photo, identifier);
            XMPMeta more = extended.length == 0 ? main : XMPMetaFactory.parseFromBuffer(extended);
            data = more.getPropertyString(DEPTH, "Data");
            if (format == null) {
                format = more.getPropertyString(DEPTH, "Format");
                main = more;
            }
        }
        if (format == null) {
            return Optional.empty();
        }
        if (data == null) {
            throw new IllegalArgumentException("the depth map itself is missing");
        }
        return Optional.of(depth(format, data, number(main, "Near"), number(main, "Far"), units(main)));
    }

    // Some writers put every depth property into the extended packet.
    private static boolean mentionsDepth(byte[] photo) {
        return JpegSegments.of(photo, 0).stream()
                .anyMatch(segment ->
                        segment.marker() == JpegSegments.APP1 && segment.startsWith(photo, JpegParts.EXTENDED_XMP));
    }

    private static @Nullable Double number(XMPMeta meta, String name) throws XMPException {
        String text = meta.getPropertyString(DEPTH, name);
        if (text == null) {
            return null;
        }
        try {
            double value = Double.parseDouble(text.strip());
            return Double.isFinite(value) && value > 0 ? value : null;
        } catch (NumberFormatException notANumber) {
            throw new IllegalArgumentException("its " + name + " distance is \"" + text + "\", not a number");
        }
    }

    private static String units(XMPMeta meta) throws XMPException {
        String units = meta.getPropertyString(DEPTH, "Units");
        return units == null ? METRES : units.strip();
    }

    private CameraDepth depth(String format, String data, @Nullable Double near, @Nullable Double far, String units) {
        byte[] file;
        try {
            file = Base64.getMimeDecoder().decode(data);
        } catch (IllegalArgumentException damaged) {
            throw new IllegalArgumentException("its depth map is not coded as it should be", damaged);
        }
        Plane stored = DepthFileReader.samples(pictures.readPlain(file));
        boolean linear = format.equals("RangeLinear");
        if (!linear && !format.equals("RangeInverse")) {
            throw new IllegalArgumentException("its depth format \"" + format + "\" is not known");
        }
        boolean ranged = near != null && far != null && far > near;
        if (linear && !ranged) {
            throw new IllegalArgumentException("its depth needs a near and a far distance, and far beyond near");
        }
        Plane nearness = new Plane(stored.size());
        for (int i = 0; i < nearness.samples().length; i++) {
            float value = stored.samples()[i];
            nearness.samples()[i] = linear && near != null && far != null ? inverse(value, near, far) : 1 - value;
        }
        boolean metric = units.equals(METRES) && ranged;
        return new CameraDepth(nearness, "depth metadata", metric ? near : null, metric ? far : null);
    }

    private static float inverse(float value, double near, double far) {
        double distance = near + value * (far - near);
        return (float) ((1 / distance - 1 / far) / (1 / near - 1 / far));
    }
}
