package app.yubble.server.editing;

import java.util.List;
import java.util.UUID;
import org.springframework.data.repository.Repository;

interface InspectedPlaceRepository extends Repository<InspectedPlace, UUID> {
    List<InspectedPlace> findByShotId(UUID shotId);

    InspectedPlace save(InspectedPlace place);
}
