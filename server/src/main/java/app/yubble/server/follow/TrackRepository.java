package app.yubble.server.follow;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.data.domain.Limit;
import org.springframework.data.jpa.repository.Modifying;
import org.springframework.data.jpa.repository.Query;
import org.springframework.data.repository.Repository;
import org.springframework.transaction.annotation.Transactional;

interface TrackRepository extends Repository<Track, UUID> {
    Track save(Track track);

    Optional<Track> findById(UUID id);

    Optional<Track> findByShotIdAndName(UUID shotId, String name);

    @Query("select t.id from Track t where t.shotId = ?1 order by t.touched desc, t.id")
    List<UUID> newestFirst(UUID shotId, Limit limit);

    /** Those of an account that are not made yet. */
    @Query(
            "select count(t) from Track t, Shot s where s.id = t.shotId and s.accountId = ?1 and t.contentHash is null and t.fault is null")
    long countWaiting(UUID account);

    @Transactional
    @Modifying
    @Query("delete from Track t where t.shotId = ?1 and t.id not in ?2")
    void keepOnly(UUID shotId, List<UUID> kept);

    /** Whether it is still wanted. */
    @Transactional
    @Modifying
    @Query("update Track t set t.done = ?2, t.touched = ?3 where t.id = ?1")
    int reach(UUID id, double done, Instant now);

    @Transactional
    @Modifying
    @Query("update Track t set t.done = 1, t.contentHash = ?2, t.fault = null, t.touched = ?3 where t.id = ?1")
    int finish(UUID id, String hash, Instant now);

    @Transactional
    @Modifying
    @Query("update Track t set t.fault = ?2, t.touched = ?3 where t.id = ?1")
    int fail(UUID id, @Nullable String fault, Instant now);
}
