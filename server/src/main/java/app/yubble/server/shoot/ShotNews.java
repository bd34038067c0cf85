package app.yubble.server.shoot;

import app.yubble.server.news.News;
import jakarta.persistence.PostPersist;
import jakarta.persistence.PostUpdate;
import org.springframework.stereotype.Component;

/** Tells all nodes of every change of a shot. */
@Component
class ShotNews {
    private final News news;

    ShotNews(News news) {
        this.news = news;
    }

    @PostPersist
    @PostUpdate
    void changed(Shot shot) {
        news.tell(shot.accountId(), News.Kind.SHOT, shot.id().toString(), shot.revision());
    }
}
