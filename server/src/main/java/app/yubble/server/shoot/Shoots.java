package app.yubble.server.shoot;

import app.yubble.server.paging.Page;
import app.yubble.server.problem.NotFoundException;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.data.domain.Limit;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Shoots, each with the number of its shots. */
@Service
public class Shoots {
    private final ShootRepository shoots;
    private final ShotRepository shots;

    Shoots(ShootRepository shoots, ShotRepository shots) {
        this.shoots = shoots;
        this.shots = shots;
    }

    /** @param shots how many are in it */
    public record ShootView(UUID id, String name, long shots) {}

    /** The newest first. */
    @Transactional(readOnly = true)
    public Page<ShootView> page(UUID account, @Nullable UUID after, int count) {
        Limit oneMore = Limit.of(count + 1);
        List<Shoot> found = after == null
                ? shoots.findByAccountIdOrderByCreatedDescIdDesc(account, oneMore)
                : shoots.findAfter(account, owned(after, account).id(), oneMore);
        Map<UUID, Long> counts = new HashMap<>();
        shots.count(found.stream().map(Shoot::id).toList())
                .forEach(each -> counts.put(each.getShoot(), each.getShots()));
        return Page.of(found, count, Shoot::id)
                .map(shoot -> new ShootView(shoot.id(), shoot.name(), counts.getOrDefault(shoot.id(), 0L)));
    }

    @Transactional
    public ShootView create(UUID account, String name) {
        Shoot shoot = shoots.save(new Shoot(account, name));
        return new ShootView(shoot.id(), shoot.name(), 0);
    }

    @Transactional
    public ShootView rename(UUID id, UUID account, String name) {
        Shoot shoot = owned(id, account);
        shoot.rename(name);
        long count = shots.count(List.of(id)).stream()
                .mapToLong(ShotRepository.Count::getShots)
                .sum();
        return new ShootView(id, name, count);
    }

    @Transactional
    public void delete(UUID id, UUID account) {
        shoots.delete(owned(id, account));
    }

    /** What all of an account's are called. */
    @Transactional(readOnly = true)
    public Map<UUID, String> names(UUID account) {
        Map<UUID, String> out = new HashMap<>();
        shoots.findByAccountIdOrderByCreatedDescIdDesc(account, Limit.unlimited())
                .forEach(each -> out.put(each.id(), each.name()));
        return out;
    }

    /** What a shoot is called. */
    public String nameOf(UUID id, UUID account) {
        return owned(id, account).name();
    }

    private Shoot owned(UUID id, UUID account) {
        return shoots.findByIdAndAccountId(id, account).orElseThrow(() -> new NotFoundException("shoot"));
    }
}
