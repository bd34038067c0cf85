package app.yubble.server.news;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyString;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.TreeMap;
import java.util.UUID;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

class NewsReaderTest {
    private static final long SECOND = 1_000_000_000;

    /** What is committed. */
    private final TreeMap<Long, News.Item> seen = new TreeMap<>();

    private final News news = mock();
    private final NewsReader reader = new NewsReader(news, event -> {});

    @BeforeEach
    void answerFromWhatIsCommitted() {
        when(news.where(anyString(), any(Object[].class))).thenAnswer(call -> {
            String condition = call.getArgument(0);
            if (condition.startsWith("seq >")) {
                return new ArrayList<>(
                        seen.tailMap(call.<Long>getArgument(1), false).values());
            }
            return Arrays.stream(condition.replaceAll("[^0-9,]", "").split(","))
                    .map(Long::valueOf)
                    .filter(seen::containsKey)
                    .map(seen::get)
                    .toList();
        });
        when(news.last()).thenReturn(10L);
        commit(10);
        assertThat(reader.look(0)).isEmpty();
    }

    private void commit(long number) {
        seen.put(number, new News.Item(number, new UUID(0, 1), News.Kind.SHOT, "s", 1, false));
    }

    private List<Long> look(long now) {
        return reader.look(now).stream().map(News.Item::sequence).toList();
    }

    @Test
    void everythingIsReadOnceAndInOrder() {
        commit(11);
        commit(12);
        assertThat(look(1)).containsExactly(11L, 12L);
        assertThat(look(2)).isEmpty();
        commit(13);
        assertThat(look(3)).containsExactly(13L);
    }

    /** Its number was given out before, its transaction ends later. */
    @Test
    void whatIsCommittedLateIsNotMissed() {
        commit(12);
        commit(15);
        assertThat(look(SECOND)).containsExactly(12L, 15L);
        commit(13);
        commit(16);
        assertThat(look(2 * SECOND)).containsExactly(13L, 16L);
        commit(11);
        assertThat(look(20 * SECOND)).containsExactly(11L);
        assertThat(look(21 * SECOND)).isEmpty();
    }

    @Test
    void whatWasTakenBackIsNotLookedForForEver() {
        commit(12);
        assertThat(look(SECOND)).containsExactly(12L);
        assertThat(look(40 * SECOND)).isEmpty();
        commit(11);
        assertThat(look(41 * SECOND)).isEmpty();
    }
}
