package app.yubble.server.shoot;

import app.yubble.core.recipe.DepthChoice;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.springframework.data.repository.Repository;

interface DepthMapRepository extends Repository<DepthMap, UUID> {
    List<DepthMap> findByShotId(UUID shotId);

    List<DepthMap> findByShotIdIn(Collection<UUID> shotIds);

    Optional<DepthMap> findByShotIdAndSource(UUID shotId, DepthChoice.Source source);

    DepthMap save(DepthMap map);
}
