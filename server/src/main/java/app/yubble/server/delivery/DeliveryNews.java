package app.yubble.server.delivery;

import app.yubble.server.news.News;
import jakarta.persistence.PostPersist;
import jakarta.persistence.PostUpdate;
import org.springframework.stereotype.Component;

/** Tells all nodes of every change of a delivery. */
@Component
class DeliveryNews {
    private final News news;

    DeliveryNews(News news) {
        this.news = news;
    }

    @PostPersist
    @PostUpdate
    void changed(Delivery delivery) {
        news.tell(delivery.accountId(), News.Kind.DELIVERY, delivery.id().toString(), delivery.revision());
    }
}
