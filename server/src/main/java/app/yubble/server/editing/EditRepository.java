package app.yubble.server.editing;

import java.util.Collection;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.springframework.data.jpa.repository.Modifying;
import org.springframework.data.jpa.repository.Query;
import org.springframework.data.repository.Repository;

interface EditRepository extends Repository<Edit, UUID> {
    Optional<Edit> findByVersionIdAndPosition(UUID versionId, int position);

    /** Where the versions of a shot stand. */
    @Query("select e from Edit e, Version v where e.versionId = v.id and e.position = v.position "
            + "and v.shotId = :shot and v.removed is null")
    List<Edit> findCurrent(UUID shot);

    /** The steps of these versions without their recipes. */
    List<StepName> findStepsByVersionIdInOrderByPosition(Collection<UUID> versionIds);

    /** Forgets the steps that were undone, and those that are older than {@code oldest}. */
    @Modifying
    @Query("delete from Edit e where e.versionId = :version and (e.position > :newest or e.position < :oldest)")
    void deleteOutside(UUID version, int oldest, int newest);

    Edit save(Edit edit);
}
