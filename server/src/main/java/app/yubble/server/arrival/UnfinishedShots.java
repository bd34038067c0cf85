package app.yubble.server.arrival;

import app.yubble.server.YubbleProperties;
import app.yubble.server.account.Accounts;
import app.yubble.server.depth.DepthJob;
import app.yubble.server.jobs.Unfinished;
import app.yubble.server.shoot.Shot;
import app.yubble.server.shoot.Shots;
import java.time.Instant;
import java.util.List;
import java.util.UUID;
import org.springframework.stereotype.Component;

/** Shots that are read or estimated. */
@Component
class UnfinishedShots implements Unfinished {
    private final Shots shots;
    private final DepthJob depth;
    private final ClipReadingJob reading;
    private final Accounts accounts;
    private final YubbleProperties properties;

    UnfinishedShots(
            Shots shots, DepthJob depth, ClipReadingJob reading, Accounts accounts, YubbleProperties properties) {
        this.shots = shots;
        this.depth = depth;
        this.reading = reading;
        this.accounts = accounts;
        this.properties = properties;
    }

    @Override
    public List<UUID> untouchedSince(Instant moment) {
        return shots.untouchedSince(moment);
    }

    @Override
    public boolean claim(UUID id, Instant moment) {
        return shots.claim(id, moment);
    }

    @Override
    public void resume(UUID id) {
        Shot shot = shots.byId(id);
        if (shot.isClip() && shot.sheetHash() == null) {
            reading.enqueue(id, null);
        } else {
            depth.enqueue(
                    id,
                    accounts.depthEngine(shot.accountId()),
                    shot.isClip() ? properties.clipDepth() : properties.firstDepth());
        }
    }
}
