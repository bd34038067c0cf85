package app.yubble.server.editing;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyLong;
import static org.mockito.ArgumentMatchers.anyString;
import static org.mockito.Mockito.doAnswer;
import static org.mockito.Mockito.mock;

import app.yubble.core.raster.Progress;
import app.yubble.server.YubbleProperties;
import app.yubble.server.memory.LastUsed;
import app.yubble.server.news.News;
import app.yubble.server.news.NewsReader;
import java.util.ArrayList;
import java.util.List;
import java.util.UUID;
import java.util.concurrent.CancellationException;
import org.junit.jupiter.api.Test;

/** Two nodes that tell each other by news. */
class PreviewDeskTest {
    private static final UUID ANN = new UUID(0, 1);

    private final List<News.Item> told = new ArrayList<>();

    private PreviewDesk desk() {
        News news = mock();
        doAnswer(call -> told.add(new News.Item(
                        told.size(),
                        call.getArgument(0),
                        call.getArgument(1),
                        call.getArgument(2),
                        call.getArgument(3),
                        false)))
                .when(news)
                .tell(any(), any(), anyString(), anyLong());
        return new PreviewDesk(mock(YubbleProperties.class), mock(LastUsed.class), news, Runnable::run);
    }

    private void tell(PreviewDesk to) {
        to.told(new NewsReader.Edition(List.copyOf(told)));
        told.clear();
    }

    @Test
    void aNewerRequestOfThePageEndsTheOlderOne() {
        PreviewDesk desk = desk();
        Progress older = desk.ticket(ANN, "page", 1);
        older.at(0.5);
        Progress newer = desk.ticket(ANN, "page", 2);
        assertThatThrownBy(() -> older.at(0.6)).isInstanceOf(CancellationException.class);
        newer.at(0.1);
        desk.ticket(new UUID(0, 2), "page", 9);
        newer.at(0.2);
    }

    @Test
    void aNewerRequestAtAnotherNodeEndsItTooAlsoWhenThePageComesBack() {
        PreviewDesk east = desk();
        PreviewDesk west = desk();
        Progress first = east.ticket(ANN, "page", 1);
        tell(west);
        Progress second = west.ticket(ANN, "page", 2);
        tell(east);
        assertThatThrownBy(() -> first.at(0.5)).isInstanceOf(CancellationException.class);
        second.at(0.5);
        east.ticket(ANN, "page", 3);
        tell(west);
        assertThatThrownBy(() -> second.at(0.6)).isInstanceOf(CancellationException.class);
    }

    @Test
    void aPageThatStaysAtItsNodeIsToldOfOnce() {
        PreviewDesk desk = desk();
        for (int number = 1; number < 30; number++) {
            desk.ticket(ANN, "page", number);
        }
        assertThat(told).hasSize(1);
    }
}
