package app.yubble.server.shoot;

import app.yubble.server.paging.Page;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.springframework.stereotype.Component;

/** Shots with their depth maps, for answers. */
@Component
public class ShotViews {
    private final DepthMaps maps;

    ShotViews(DepthMaps maps) {
        this.maps = maps;
    }

    public ShotView of(Shot shot) {
        return ShotView.of(shot, maps.of(shot.id()));
    }

    Page<ShotView> of(Page<Shot> page) {
        Map<UUID, List<DepthMap>> all =
                maps.of(page.items().stream().map(Shot::id).toList());
        return page.map(shot -> ShotView.of(shot, all.getOrDefault(shot.id(), List.of())));
    }
}
