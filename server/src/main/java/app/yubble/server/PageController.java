package app.yubble.server;

import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;

/** Addresses inside the single-page application. */
@Controller
class PageController {
    @GetMapping({
        "/sign-in",
        "/shoots",
        "/shoots/{id}",
        "/bench/{id}",
        "/deliveries",
        "/contact-sheets/{batch}",
        "/settings",
        "/state",
        "/guide"
    })
    String page() {
        return "forward:/index.html";
    }
}
