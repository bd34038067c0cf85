package app.yubble.server.storage;

import java.io.IOException;
import java.io.InputStream;
import org.springframework.core.io.AbstractResource;

/** A stored file on its way to the network. */
final class StoredFile extends AbstractResource {
    private final FileStore files;
    private final String hash;

    StoredFile(FileStore files, String hash) {
        this.files = files;
        this.hash = hash;
    }

    @Override
    public InputStream getInputStream() throws IOException {
        return files.open(hash);
    }

    @Override
    public long contentLength() throws IOException {
        return files.length(hash);
    }

    @Override
    public String getDescription() {
        return "stored file " + hash;
    }
}
