package app.yubble.server.mask;

import java.util.UUID;
import org.springframework.data.repository.Repository;

interface MaskFileRepository extends Repository<MaskFile, UUID> {
    boolean existsByAccountIdAndContentHash(UUID accountId, String contentHash);

    MaskFile save(MaskFile file);
}
