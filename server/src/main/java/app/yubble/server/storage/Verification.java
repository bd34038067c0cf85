package app.yubble.server.storage;

import app.yubble.server.problem.DamagedFileException;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import org.springframework.stereotype.Component;

/** Looks whether the store holds all that anything names. */
@Component
public class Verification {
    private final NamedFiles names;
    private final FileStore files;

    Verification(NamedFiles names, FileStore files) {
        this.names = names;
        this.files = files;
    }

    /**
     * What was found.
     *
     * @param good files whose content is what their name says
     * @param damaged a line for each that is not, or is missing: its hash and what names it
     * @param unnamed files that nothing names
     */
    public record Report(int good, List<String> damaged, int unnamed) {}

    /** Reads every file, which takes as long as the disk takes. */
    public Report look() throws IOException {
        Set<String> unnamed = new HashSet<>(files.storedBefore(Instant.now()));
        Map<String, String> named = new TreeMap<>(names.where());
        unnamed.removeAll(named.keySet());
        List<String> damaged = new ArrayList<>();
        for (Map.Entry<String, String> each : named.entrySet()) {
            try (InputStream in = files.open(each.getKey())) {
                in.transferTo(OutputStream.nullOutputStream());
            } catch (DamagedFileException fault) {
                damaged.add(each.getKey() + " (" + each.getValue() + ")");
            }
        }
        return new Report(named.size() - damaged.size(), damaged, unnamed.size());
    }
}
