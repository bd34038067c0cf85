package app.yubble.server.delivery;

import app.yubble.server.account.Allowance;
import app.yubble.server.jobs.Unfinished;
import app.yubble.server.paging.Page;
import app.yubble.server.problem.ConflictException;
import app.yubble.server.problem.NotFoundException;
import app.yubble.server.storage.FileStore;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.data.domain.Limit;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** The queue of deliveries and their states. */
@Service
public class Deliveries {
    /** Joining is quick, but it is not yet done. */
    private static final double MOST_BEFORE_JOINED = 0.98;
    /** Pre-rendered stretches of a shot that are remembered. */
    private static final int KEPT_PLAYING = 6;
    /** That nobody works on and that are taken up at a time. */
    private static final int MOST_LOST = 200;

    private static final String STOPPED = "The server stopped over this, more than once. Try it again.";

    private final DeliveryRepository repository;
    private final FileStore files;
    private final Allowance allowance;

    Deliveries(DeliveryRepository repository, FileStore files, Allowance allowance) {
        this.allowance = allowance;
        this.files = files;
        this.repository = repository;
    }

    /** The newest first. */
    @Transactional(readOnly = true)
    Page<Delivery> page(UUID account, @Nullable UUID after, int count) {
        Limit oneMore = Limit.of(count + 1);
        return Page.of(
                after == null
                        ? repository.findByAccountIdAndPlayingFalseOrderByCreatedDescIdDesc(account, oneMore)
                        : repository.findAfter(account, owned(after, account).id(), oneMore),
                count,
                Delivery::id);
    }

    /** A file that is done. */
    public record Done(String fileName, String contentHash) {}

    /** All of an account that are done, the oldest first. */
    @Transactional(readOnly = true)
    public List<Done> done(UUID account) {
        return repository.findByAccountIdAndPlayingFalseAndContentHashIsNotNullOrderByCreated(account).stream()
                .map(each -> new Done(each.fileName(), String.valueOf(each.contentHash())))
                .toList();
    }

    Delivery owned(UUID id, UUID account) {
        return repository.findByIdAndAccountId(id, account).orElseThrow(() -> new NotFoundException("delivery"));
    }

    Optional<Delivery> find(UUID id) {
        return repository.findById(id);
    }

    Delivery byId(UUID id) {
        return repository.findById(id).orElseThrow(() -> new NotFoundException("delivery"));
    }

    private Delivery locked(UUID id, UUID account) {
        return repository.findLockedByIdAndAccountId(id, account).orElseThrow(() -> new NotFoundException("delivery"));
    }

    @Transactional
    Delivery add(Delivery delivery) {
        files.requireRoom();
        allowance.requireWork(delivery.accountId(), 1);
        allowance.requireBytes(delivery.accountId(), 0);
        return repository.save(delivery);
    }

    /** All of them or none. */
    @Transactional
    void addAll(List<Delivery> all) {
        files.requireRoom();
        if (!all.isEmpty()) {
            UUID account = all.get(0).accountId();
            allowance.requireWork(account, all.size());
            allowance.requireBytes(account, 0);
        }
        all.forEach(repository::save);
    }

    /** All of a batch. */
    @Transactional(readOnly = true)
    List<Delivery> of(UUID batch, UUID account) {
        List<Delivery> all = repository.findByAccountIdAndBatchOrderByFileName(account, batch);
        if (all.isEmpty()) {
            throw new NotFoundException("batch");
        }
        return all;
    }

    /** Returns false when the delivery is over: cancelled, or gone with its shot. */
    @Transactional
    boolean reach(UUID id, Delivery.State state, double progress, @Nullable String problem) {
        Delivery delivery = repository.findLockedById(id).orElse(null);
        if (delivery == null || delivery.isOver()) {
            return false;
        }
        delivery.reach(state, progress, problem);
        return true;
    }

    /** Progress of several jobs side by side: it does not go back. False when the delivery is over. */
    @Transactional
    boolean advance(UUID id, double done) {
        Delivery delivery = repository.findLockedById(id).orElse(null);
        if (delivery == null || delivery.isOver()) {
            return false;
        }
        delivery.reach(
                Delivery.State.RENDERING, Math.min(MOST_BEFORE_JOINED, Math.max(delivery.progress(), done)), null);
        return true;
    }

    /** Makes a delivery for playing; of those of the same shot that are over the oldest go, those under way are cancelled. */
    @Transactional
    Delivery addPlaying(Delivery delivery) {
        files.requireRoom();
        List<Delivery> before = repository.findByShotIdAndPlayingTrueOrderByCreatedDescIdDesc(delivery.shotId());
        for (int i = 0; i < before.size(); i++) {
            if (!before.get(i).isOver()) {
                before.get(i).reach(Delivery.State.CANCELLED, before.get(i).progress(), null);
            } else if (i >= KEPT_PLAYING) {
                repository.delete(before.get(i));
            }
        }
        return repository.save(delivery);
    }

    @Transactional
    void done(UUID id, String hash, long bytes, @Nullable String thumbnail) {
        repository.findLockedById(id).filter(delivery -> !delivery.isOver()).ifPresent(delivery -> {
            if (thumbnail != null) {
                delivery.showAs(thumbnail);
            }
            delivery.done(hash, bytes);
        });
    }

    /** Those under way that have not moved on since. */
    List<UUID> untouchedSince(Instant moment) {
        return repository
                .findByStateInAndChangedBeforeOrderByChanged(
                        List.of(Delivery.State.WAITING, Delivery.State.RENDERING), moment, Limit.of(MOST_LOST))
                .stream()
                .map(Delivery::id)
                .toList();
    }

    /** Puts one back into the queue; false when it has moved on since, or is over. */
    @Transactional
    boolean claim(UUID id, Instant moment) {
        Delivery delivery = repository.findLockedById(id).orElse(null);
        if (delivery == null || delivery.isOver() || !delivery.changed().isBefore(moment)) {
            return false;
        }
        boolean old = delivery.created().isBefore(moment.minus(Unfinished.TRIED_FOR));
        delivery.reach(old ? Delivery.State.FAILED : Delivery.State.WAITING, delivery.progress(), old ? STOPPED : null);
        return !old;
    }

    @Transactional
    void cancel(UUID id, UUID account) {
        Delivery delivery = locked(id, account);
        if (delivery.isOver()) {
            throw new ConflictException("This delivery is over already.");
        }
        delivery.reach(Delivery.State.CANCELLED, delivery.progress(), null);
    }

    /** Puts one that failed or was cancelled into the queue again. */
    @Transactional
    void again(UUID id, UUID account) {
        Delivery delivery = locked(id, account);
        if (delivery.state() != Delivery.State.FAILED && delivery.state() != Delivery.State.CANCELLED) {
            throw new ConflictException("Only a delivery that failed or was cancelled can be tried again.");
        }
        delivery.reach(Delivery.State.WAITING, 0, null);
    }

    @Transactional
    void delete(UUID id, UUID account) {
        Delivery delivery = locked(id, account);
        if (!delivery.isOver()) {
            throw new ConflictException("This delivery is still under way; cancel it first.");
        }
        repository.delete(delivery);
    }
}
