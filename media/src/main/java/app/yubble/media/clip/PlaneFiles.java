package app.yubble.media.clip;

import app.yubble.core.clip.DepthOverTime;
import app.yubble.core.clip.PlaneStore;
import app.yubble.core.raster.HalfFloat;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Size;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.Comparator;
import java.util.HashMap;
import java.util.Map;

/**
 * Shelves in a folder, a file each, in which every plane has its place. What is on them is found again by whoever opens the folder
 * later. Planes are put and got from one thread at a time.
 */
public final class PlaneFiles implements DepthOverTime.Shelves, AutoCloseable {
    private static final byte THERE = 1;

    private final Path folder;
    private final Map<String, Shelf> shelves = new HashMap<>();

    public PlaneFiles(Path folder) {
        this.folder = folder;
        try {
            Files.createDirectories(folder);
        } catch (IOException fault) {
            throw new UncheckedIOException("a folder for depth under way could not be made", fault);
        }
    }

    /** Of any numbers, to eleven bits. */
    @Override
    public PlaneStore maps(String name, Size size) {
        return shelves.computeIfAbsent(name, fresh -> new Shelf(folder.resolve(name), size, Short.BYTES));
    }

    /** Of numbers in [0,1], to eight bits. */
    @Override
    public PlaneStore mattes(String name, Size size) {
        return shelves.computeIfAbsent(name, fresh -> new Shelf(folder.resolve(name), size, 1));
    }

    @Override
    public void close() {
        shelves.values().forEach(Shelf::close);
        shelves.clear();
    }

    /** Closes it and takes the folder away. */
    public void remove() {
        close();
        try (var all = Files.walk(folder)) {
            for (Path each : all.sorted(Comparator.reverseOrder()).toList()) {
                Files.deleteIfExists(each);
            }
        } catch (IOException fault) {
            throw new UncheckedIOException("temporary files could not be removed", fault);
        }
    }

    private static final class Shelf implements PlaneStore {
        private final Size size;
        private final int bytes;
        private final ByteBuffer buffer;
        private final FileChannel file;

        Shelf(Path path, Size size, int bytes) {
            this.size = size;
            this.bytes = bytes;
            buffer = ByteBuffer.allocate(1 + Math.toIntExact(size.pixels() * bytes))
                    .order(ByteOrder.LITTLE_ENDIAN);
            try {
                file = FileChannel.open(
                        path, StandardOpenOption.CREATE, StandardOpenOption.READ, StandardOpenOption.WRITE);
            } catch (IOException fault) {
                throw new UncheckedIOException("depth under way cannot be kept", fault);
            }
        }

        @Override
        public void put(int number, Plane plane) {
            buffer.clear().put(THERE);
            for (float each : plane.samples()) {
                if (bytes == 1) {
                    buffer.put((byte) Math.round(255 * Math.max(0, Math.min(1, each))));
                } else {
                    buffer.putShort(HalfFloat.of(each));
                }
            }
            buffer.flip();
            try {
                long at = (long) number * buffer.limit();
                while (buffer.hasRemaining()) {
                    at += file.write(buffer, at);
                }
            } catch (IOException fault) {
                throw new UncheckedIOException("depth under way could not be stored", fault);
            }
        }

        @Override
        public Plane get(int number) {
            if (!read(number, buffer.capacity())) {
                throw new IllegalArgumentException("there is no plane " + number);
            }
            Plane out = new Plane(size);
            for (int i = 0; i < out.samples().length; i++) {
                out.samples()[i] = bytes == 1 ? (buffer.get() & 0xff) / 255f : HalfFloat.toFloat(buffer.getShort());
            }
            return out;
        }

        @Override
        public boolean has(int number) {
            return read(number, 1);
        }

        /** The first bytes of a place; what was cut off while it was written is not there. */
        private boolean read(int number, int count) {
            buffer.clear().limit(count);
            try {
                long at = (long) number * buffer.capacity();
                if (at + buffer.capacity() > file.size()) {
                    return false;
                }
                while (buffer.hasRemaining()) {
                    if (file.read(buffer, at + buffer.position()) < 0) {
                        return false;
                    }
                }
            } catch (IOException fault) {
                throw new UncheckedIOException("depth under way could not be read", fault);
            }
            buffer.flip();
            return buffer.get() == THERE;
        }

        void close() {
            try {
                file.close();
            } catch (IOException fault) {
                throw new UncheckedIOException("depth under way could not be closed", fault);
            }
        }
    }
}
