package app.yubble.server.shoot;

import java.util.OptionalInt;
import java.util.UUID;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.stereotype.Component;

/** Frames of clips that are looked at before they have depth; whichever node estimates the clip takes them first. */
@Component
public class FramesWanted {
    private final JdbcTemplate database;

    FramesWanted(JdbcTemplate database) {
        this.database = database;
    }

    /** What is looked at now; only the last one counts. */
    void want(UUID shot, int frame) {
        database.update("update shot set wanted_frame = ? where id = ?", frame, shot);
    }

    /** The frame that is wanted, once. */
    public OptionalInt take(UUID shot) {
        Integer frame = database
                .queryForList(
                        "select wanted_frame from shot where id = ? and wanted_frame is not null", Integer.class, shot)
                .stream()
                .findFirst()
                .orElse(null);
        if (frame == null) {
            return OptionalInt.empty();
        }
        database.update("update shot set wanted_frame = null where id = ? and wanted_frame = ?", shot, frame);
        return OptionalInt.of(frame);
    }
}
