package app.yubble.server.shoot;

import app.yubble.server.storage.NamesFiles;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.stereotype.Component;

/** Packs of clips' depth: a map and a delivery name an index, which names the packs. */
@Component
class ClipDepthNames implements NamesFiles {
    private static final String INDICES = "select m.content_hash from depth_map m join shot s on s.id = m.shot_id"
            + " where s.clip and (? is null or s.account_id = ?)"
            + " union select depth_hash from delivery where depth_hash is not null and (? is null or account_id = ?)";

    private final JdbcTemplate database;
    private final ClipFiles clips;

    ClipDepthNames(JdbcTemplate database, ClipFiles clips) {
        this.database = database;
        this.clips = clips;
    }

    @Override
    public String what() {
        return "depth of a clip";
    }

    @Override
    public Set<String> named(@Nullable UUID account) {
        Set<String> out = new HashSet<>();
        List<String> indices = database.queryForList(INDICES, String.class, account, account, account, account);
        indices.forEach(each -> out.addAll(clips.packsOf(each)));
        return out;
    }
}
