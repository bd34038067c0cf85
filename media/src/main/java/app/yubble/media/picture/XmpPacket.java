package app.yubble.media.picture;

import com.adobe.internal.xmp.XMPConst;
import com.adobe.internal.xmp.XMPException;
import com.adobe.internal.xmp.XMPMeta;
import com.adobe.internal.xmp.XMPMetaFactory;
import com.adobe.internal.xmp.options.PropertyOptions;
import com.adobe.internal.xmp.options.SerializeOptions;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/** Packets of XMP (ISO 16684-1): read with care, and written so that they fit the delivered picture. */
public final class XmpPacket {
    /** Bytes of a packet that is kept. */
    private static final int MOST_BYTES = 60_000;

    private static final String RESOURCE_EVENT = "http://ns.adobe.com/xap/1.0/sType/ResourceEvent#";
    private static final String DEPTH = "http://ns.google.com/photos/1.0/depthmap/";
    private static final String IMAGE = "http://ns.google.com/photos/1.0/image/";
    private static final String CONTAINER = "http://ns.google.com/photos/1.0/container/";
    private static final String EXTENSION = "http://ns.adobe.com/xmp/note/";
    private static final String IPTC_EXTENSION = "http://iptc.org/std/Iptc4xmpExt/2008-02-29/";
    private static final List<String> POSITIONS = List.of(
            "GPSLatitude",
            "GPSLongitude",
            "GPSAltitude",
            "GPSAltitudeRef",
            "GPSTimeStamp",
            "GPSVersionID",
            "GPSMapDatum",
            "GPSImgDirection",
            "GPSImgDirectionRef",
            "GPSDestLatitude",
            "GPSDestLongitude",
            "GPSAreaInformation",
            "GPSProcessingMethod",
            "GPSSpeed",
            "GPSSpeedRef",
            "GPSTrack",
            "GPSTrackRef",
            "GPSHPositioningError");

    private XmpPacket() {}

    /** A packet as it can stand in a delivered picture; null when it is damaged, too long or holds nothing. */
    static byte @Nullable [] kept(byte[] packet) {
        return read(packet)
                .map(meta -> {
                    // The picture is upright, its size may be another, and depth and pictures in the packet are of the
                    // old one.
                    for (String gone : List.of("Orientation", "ImageWidth", "ImageLength")) {
                        meta.deleteProperty(XMPConst.NS_TIFF, gone);
                    }
                    for (String gone : List.of("PixelXDimension", "PixelYDimension")) {
                        meta.deleteProperty(XMPConst.NS_EXIF, gone);
                    }
                    meta.deleteProperty(XMPConst.NS_XMP, "Thumbnails");
                    for (String gone : List.of(DEPTH, IMAGE, CONTAINER, EXTENSION)) {
                        removeAll(meta, gone);
                    }
                    return written(meta);
                })
                .orElse(null);
    }

    static byte @Nullable [] withoutPlace(byte[] packet) {
        return read(packet)
                .map(meta -> {
                    POSITIONS.forEach(each -> meta.deleteProperty(XMPConst.NS_EXIF, each));
                    for (String each : List.of("City", "State", "Country")) {
                        meta.deleteProperty(XMPConst.NS_PHOTOSHOP, each);
                    }
                    for (String each : List.of("Location", "CountryCode")) {
                        meta.deleteProperty(XMPConst.NS_IPTCCORE, each);
                    }
                    for (String each : List.of("LocationShown", "LocationCreated")) {
                        meta.deleteProperty(IPTC_EXTENSION, each);
                    }
                    return written(meta);
                })
                .orElse(null);
    }

    /** With one more event in the history of the file. */
    static byte[] withDone(byte @Nullable [] packet, String what) {
        XMPMeta meta = Optional.ofNullable(packet).flatMap(XmpPacket::read).orElseGet(XMPMetaFactory::create);
        String now = Instant.now().truncatedTo(ChronoUnit.SECONDS).toString();
        try {
            meta.appendArrayItem(
                    XMPConst.NS_XMP_MM,
                    "History",
                    new PropertyOptions().setArrayOrdered(true),
                    null,
                    new PropertyOptions().setStruct(true));
            String event = "History[" + meta.countArrayItems(XMPConst.NS_XMP_MM, "History") + "]";
            meta.setStructField(XMPConst.NS_XMP_MM, event, RESOURCE_EVENT, "action", "edited");
            meta.setStructField(XMPConst.NS_XMP_MM, event, RESOURCE_EVENT, "softwareAgent", "Yubble");
            meta.setStructField(XMPConst.NS_XMP_MM, event, RESOURCE_EVENT, "when", now);
            meta.setStructField(XMPConst.NS_XMP_MM, event, RESOURCE_EVENT, "parameters", what);
            meta.setProperty(XMPConst.NS_XMP, "MetadataDate", now);
            byte[] out = written(meta);
            return out == null ? new byte[0] : out;
        } catch (XMPException fault) {
            throw new IllegalStateException("a history can be written into every packet", fault);
        }
    }

    /**
     * With what is said about depth that is stored in an extended packet.
     *
     * @param packet empty for none
     * @param identifier of the extended packet
     * @param units of {@code near} and {@code far}
     */
    public static byte[] withDepth(byte[] packet, String identifier, double near, double far, String units) {
        XMPMeta meta = read(packet).orElseGet(XMPMetaFactory::create);
        try {
            XMPMetaFactory.getSchemaRegistry().registerNamespace(DEPTH, "GDepth");
            XMPMetaFactory.getSchemaRegistry().registerNamespace(EXTENSION, "xmpNote");
            meta.setProperty(EXTENSION, "HasExtendedXMP", identifier);
            meta.setProperty(DEPTH, "Format", "RangeInverse");
            meta.setPropertyDouble(DEPTH, "Near", near);
            meta.setPropertyDouble(DEPTH, "Far", far);
            meta.setProperty(DEPTH, "Units", units);
            meta.setProperty(DEPTH, "Mime", "image/png");
            byte[] out = written(meta);
            if (out == null) {
                throw new IllegalArgumentException("the metadata is too long");
            }
            return out;
        } catch (XMPException fault) {
            throw new IllegalStateException("plain values can be written into every packet", fault);
        }
    }

    private static Optional<XMPMeta> read(byte[] packet) {
        // Entities are never needed, and can be used to fill memory.
        if (packet.length > MOST_BYTES || new String(packet, StandardCharsets.ISO_8859_1).contains("<!")) {
            return Optional.empty();
        }
        try {
            return Optional.of(XMPMetaFactory.parseFromBuffer(packet));
        } catch (XMPException | RuntimeException damaged) {
            return Optional.empty();
        }
    }

    private static void removeAll(XMPMeta meta, String namespace) {
        try {
            com.adobe.internal.xmp.XMPUtils.removeProperties(meta, namespace, null, true, false);
        } catch (XMPException none) {
            throw new IllegalStateException("whatever stands in a namespace can be removed", none);
        }
    }

    private static byte @Nullable [] written(XMPMeta meta) {
        try {
            byte[] out = XMPMetaFactory.serializeToBuffer(
                    meta, new SerializeOptions().setUseCompactFormat(true).setPadding(1));
            return out.length > MOST_BYTES ? null : out;
        } catch (XMPException fault) {
            return null;
        }
    }
}
