package app.yubble.media.picture;

import java.awt.image.RenderedImage;
import java.io.IOException;
import java.io.OutputStream;
import java.util.List;
import java.util.Map;
import javax.imageio.IIOImage;
import javax.imageio.ImageIO;
import javax.imageio.ImageTypeSpecifier;
import javax.imageio.ImageWriteParam;
import javax.imageio.ImageWriter;
import javax.imageio.plugins.tiff.BaselineTIFFTagSet;
import javax.imageio.plugins.tiff.ExifGPSTagSet;
import javax.imageio.plugins.tiff.ExifParentTIFFTagSet;
import javax.imageio.plugins.tiff.ExifTIFFTagSet;
import javax.imageio.plugins.tiff.TIFFDirectory;
import javax.imageio.plugins.tiff.TIFFField;
import javax.imageio.plugins.tiff.TIFFTag;
import javax.imageio.plugins.tiff.TIFFTagSet;
import javax.imageio.stream.ImageOutputStream;

/** Writes TIFF of one or more pages with profile and metadata. */
public final class TiffWriter {
    private static final TIFFTag XMP = new TIFFTag("XMP", Blocks.TIFF_XMP, 1 << TIFFTag.TIFF_BYTE);
    private static final TIFFTag IPTC = new TIFFTag("IPTC", Blocks.TIFF_IPTC, 1 << TIFFTag.TIFF_UNDEFINED);

    private TiffWriter() {}

    /** @param pages the first of them carries profile and metadata */
    public static void write(List<? extends RenderedImage> pages, Origin origin, OutputStream out) throws IOException {
        ImageWriter writer = PictureWriter.writer("com.sun.imageio.plugins.tiff.TIFFImageWriter", "tiff");
        try (ImageOutputStream to = ImageIO.createImageOutputStream(out)) {
            ImageWriteParam param = writer.getDefaultWriteParam();
            param.setCompressionMode(ImageWriteParam.MODE_EXPLICIT);
            param.setCompressionType("ZLib");
            param.setCompressionQuality(0.6f);
            writer.setOutput(to);
            writer.prepareWriteSequence(null);
            for (RenderedImage page : pages) {
                TIFFDirectory main = TIFFDirectory.createFromMetadata(
                        writer.getDefaultImageMetadata(new ImageTypeSpecifier(page), param));
                addProfile(main, origin);
                if (page == pages.get(0)) {
                    addNotes(main, origin.notes());
                }
                writer.writeToSequence(new IIOImage(page, null, main.getAsMetadata()), param);
            }
            writer.endWriteSequence();
        } finally {
            writer.dispose();
        }
    }

    private static void addProfile(TIFFDirectory main, Origin origin) {
        byte[] profile = origin.profile();
        if (profile != null) {
            TIFFTag tag = BaselineTIFFTagSet.getInstance().getTag(BaselineTIFFTagSet.TAG_ICC_PROFILE);
            main.addTIFFField(new TIFFField(tag, TIFFTag.TIFF_UNDEFINED, profile.length, profile));
        }
    }

    private static void addNotes(TIFFDirectory main, Notes notes) {
        main.addTagSet(ExifParentTIFFTagSet.getInstance());
        ExifBlock exif = notes.exif();
        if (exif != null) {
            addFields(main, BaselineTIFFTagSet.getInstance(), exif.main());
            addDirectory(main, ExifTIFFTagSet.getInstance(), ExifParentTIFFTagSet.TAG_EXIF_IFD_POINTER, exif.exif());
            addDirectory(main, ExifGPSTagSet.getInstance(), ExifParentTIFFTagSet.TAG_GPS_INFO_IFD_POINTER, exif.gps());
        }
        byte[] xmp = notes.xmp();
        if (xmp != null) {
            main.addTIFFField(new TIFFField(XMP, TIFFTag.TIFF_BYTE, xmp.length, xmp));
        }
        byte[] iptc = notes.iptc();
        if (iptc != null) {
            main.addTIFFField(new TIFFField(IPTC, TIFFTag.TIFF_UNDEFINED, iptc.length, iptc));
        }
    }

    private static void addDirectory(
            TIFFDirectory main, TIFFTagSet tags, int pointer, Map<Integer, ExifBlock.Entry> entries) {
        if (!entries.isEmpty()) {
            TIFFTag parent = ExifParentTIFFTagSet.getInstance().getTag(pointer);
            TIFFDirectory directory = new TIFFDirectory(new TIFFTagSet[] {tags}, parent);
            addFields(directory, tags, entries);
            main.addTIFFField(new TIFFField(parent, TIFFTag.TIFF_LONG, 1L, directory));
        }
    }

    private static void addFields(TIFFDirectory directory, TIFFTagSet tags, Map<Integer, ExifBlock.Entry> entries) {
        entries.forEach((number, entry) -> {
            TIFFTag tag = tags.getTag(number);
            if (tag != null && tag.isDataTypeOK(entry.type()) && entry.count() > 0) {
                int count = entry.type() == TIFFTag.TIFF_ASCII ? 1 : entry.count();
                directory.addTIFFField(new TIFFField(tag, entry.type(), count, TiffValues.of(entry)));
            }
        });
    }
}
