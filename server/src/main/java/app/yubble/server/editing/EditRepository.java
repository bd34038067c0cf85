package app.yubble.server.editing;

import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.springframework.data.jpa.repository.Modifying;
import org.springframework.data.jpa.repository.Query;
import org.springframework.data.repository.Repository;

interface EditRepository extends Repository<Edit, UUID> {
    Optional<Edit> findByVersionIdAndPosition(UUID versionId, int position);

    /** The steps without their recipes. */
    List<StepName> findStepsByVersionIdOrderByPosition(UUID versionId);

    /** Forgets the steps that were undone, and those that are older than {@code oldest}. */
    @Modifying
    @Query("delete from Edit e where e.versionId = :version and (e.position > :newest or e.position < :oldest)")
    void deleteOutside(UUID version, int oldest, int newest);

    Edit save(Edit edit);
}
