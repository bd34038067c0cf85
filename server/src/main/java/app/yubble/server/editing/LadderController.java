package app.yubble.server.editing;

import app.yubble.core.ladder.Heights;
import app.yubble.core.ladder.Ladder;
import app.yubble.core.recipe.Recipe;
import app.yubble.core.refocus.RefocusLine;
import app.yubble.server.account.SignedIn;
import app.yubble.server.shoot.Shot;
import app.yubble.server.shoot.ShotStill;
import app.yubble.server.shoot.Shots;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import java.util.List;
import java.util.UUID;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;

/** How a ladder stands. */
@RestController
class LadderController {
    private final Shots shots;
    private final RefocusLine line;
    private final ShotRecipes recipes;
    private final Drawing drawing;

    LadderController(Shots shots, RefocusLine line, ShotRecipes recipes, Drawing drawing) {
        this.shots = shots;
        this.line = line;
        this.recipes = recipes;
        this.drawing = drawing;
    }

    record LadderRequest(@NotNull Recipe recipe, @Nullable Integer frame) {}

    /**
     * A rung.
     *
     * @param found nearness of the map under it
     * @param nearness to which it leads the map
     */
    record RungView(double found, double nearness) {}

    /** @param scale what nearness is in metres; null while fewer than two distances are told */
    record LadderView(List<RungView> rungs, Heights.@Nullable Scale scale) {
        static final LadderView NONE = new LadderView(List.of(), null);

        static LadderView of(Ladder ladder) {
            double[] found = ladder.found();
            double[] nearness = ladder.heights().nearness();
            return new LadderView(
                    IntStream.range(0, found.length)
                            .mapToObj(i -> new RungView(found[i], nearness[i]))
                            .toList(),
                    ladder.heights().scale());
        }
    }

    @PostMapping("/api/shots/{id}/ladder")
    LadderView ladder(
            @AuthenticationPrincipal SignedIn who, @PathVariable UUID id, @RequestBody @Valid LadderRequest wanted) {
        Shot shot = shots.owned(id, who.id());
        ShotStill still = recipes.still(shot, wanted.frame());
        Recipe recipe = recipes.allowed(wanted.recipe(), who);
        return recipe.depth().ladder().isEmpty()
                ? LadderView.NONE
                : drawing.inTurn(who.id(), () -> LadderView.of(line.ladder(still, recipe.depth())));
    }
}
