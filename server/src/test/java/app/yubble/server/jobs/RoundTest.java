package app.yubble.server.jobs;

import static org.assertj.core.api.Assertions.assertThat;

import io.micrometer.core.instrument.simple.SimpleMeterRegistry;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.function.ToDoubleFunction;
import org.junit.jupiter.api.Test;

class RoundTest {
    private static final UUID ANN = new UUID(1, 1);
    private static final UUID BEN = new UUID(1, 2);
    private static final UUID CAT = new UUID(1, 3);
    private static final ToDoubleFunction<UUID> ALIKE = account -> 1;

    private final List<Round.Waiting> waiting = new ArrayList<>();

    private void queue(UUID account, Urgency urgency, int count) {
        for (int i = 0; i < count; i++) {
            waiting.add(new Round.Waiting(UUID.randomUUID(), account, urgency));
        }
    }

    private static List<UUID> served(Round round, int count) {
        List<UUID> out = new ArrayList<>();
        for (int i = 0; i < count; i++) {
            Round.Waiting next = round.next(urgency -> true);
            round.serve(next);
            out.add(next.account());
        }
        return out;
    }

    @Test
    void itGoesRoundHoweverMuchOneAsksFor() {
        queue(ANN, Urgency.DELIVERY, 50);
        queue(BEN, Urgency.DELIVERY, 2);
        queue(CAT, Urgency.DELIVERY, 2);
        assertThat(served(new Round(waiting, Map.of(), 0, ALIKE), 7))
                .containsExactly(ANN, BEN, CAT, ANN, BEN, CAT, ANN);
    }

    @Test
    void whatIsUrgentComesFirstWhoeversItIs() {
        queue(ANN, Urgency.DELIVERY, 3);
        queue(BEN, Urgency.AHEAD, 1);
        queue(BEN, Urgency.BETTER, 1);
        queue(ANN, Urgency.DRAFT, 1);
        Round round = new Round(waiting, Map.of(ANN, 100.0), 100, ALIKE);
        List<Urgency> order = new ArrayList<>();
        for (Round.Waiting next = round.next(urgency -> true); next != null; next = round.next(urgency -> true)) {
            order.add(next.urgency());
            round.serve(next);
        }
        assertThat(order)
                .containsExactly(
                        Urgency.DRAFT,
                        Urgency.BETTER,
                        Urgency.DELIVERY,
                        Urgency.DELIVERY,
                        Urgency.DELIVERY,
                        Urgency.AHEAD);
    }

    @Test
    void whoHasTwiceTheWeightGetsTwiceTheTurns() {
        queue(ANN, Urgency.DELIVERY, 50);
        queue(BEN, Urgency.DELIVERY, 50);
        List<UUID> all = served(new Round(waiting, Map.of(), 0, account -> account.equals(ANN) ? 2 : 1), 30);
        assertThat(all.stream().filter(ANN::equals).count()).isEqualTo(20);
    }

    /** Who was away for a week has not saved up turns: both get the same from now on. */
    @Test
    void whoComesBackTakesTheirPlaceInTheRoundUnderWay() {
        queue(ANN, Urgency.DELIVERY, 50);
        queue(BEN, Urgency.DELIVERY, 50);
        Round round = new Round(waiting, Map.of(ANN, 1000.0, BEN, 3.0), 1000, ALIKE);
        assertThat(served(round, 20).stream().filter(BEN::equals).count()).isEqualTo(10);
        assertThat(round.at()).isGreaterThan(1000);
        assertThat(round.changed()).containsOnlyKeys(ANN, BEN);
    }

    @Test
    void whatThereIsNoRoomForIsPassedOver() {
        queue(ANN, Urgency.DRAFT, 1);
        queue(ANN, Urgency.DELIVERY, 1);
        Round round = new Round(waiting, Map.of(), 0, ALIKE);
        assertThat(round.hasLessUrgent()).isTrue();
        assertThat(round.next(urgency -> urgency != Urgency.DRAFT).urgency()).isEqualTo(Urgency.DELIVERY);
        assertThat(round.next(urgency -> urgency != Urgency.DRAFT)).isNull();
        assertThat(round.hasLessUrgent()).isFalse();
    }

    @Test
    void oneWorkerIsAlwaysFreeForDraftsAndOneForAllElse() {
        Lanes lanes = new Lanes(new SimpleMeterRegistry());
        UUID first = UUID.randomUUID();
        lanes.take(first, Urgency.DELIVERY);
        assertThat(lanes.hasRoom(Urgency.CLIP, 3, true)).isTrue();
        lanes.take(UUID.randomUUID(), Urgency.CLIP);
        assertThat(lanes.hasRoom(Urgency.DELIVERY, 3, true)).isFalse();
        assertThat(lanes.hasRoom(Urgency.DRAFT, 3, true)).isTrue();
        lanes.clear();
        lanes.take(first, Urgency.DRAFT);
        lanes.take(UUID.randomUUID(), Urgency.DRAFT);
        assertThat(lanes.hasRoom(Urgency.DRAFT, 3, true)).isFalse();
        assertThat(lanes.hasRoom(Urgency.DRAFT, 3, false)).isTrue();
        assertThat(lanes.hasRoom(Urgency.DELIVERY, 3, true)).isTrue();
        assertThat(lanes.hasRoom(Urgency.DELIVERY, 1, true)).isTrue();
    }
}
