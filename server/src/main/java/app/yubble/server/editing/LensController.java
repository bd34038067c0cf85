package app.yubble.server.editing;

import app.yubble.core.lens.Disc;
import app.yubble.core.lens.DiscCharacter;
import java.util.Arrays;
import java.util.List;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RestController;

/** What the Lens step offers to start from. */
@RestController
class LensController {
    /** @param about what it looks like, one sentence */
    record CharacterView(String title, String about, Disc disc) {}

    @GetMapping("/api/lens/characters")
    List<CharacterView> characters() {
        return Arrays.stream(DiscCharacter.values())
                .map(each -> new CharacterView(each.title(), each.about(), each.disc()))
                .toList();
    }
}
