package app.yubble.server.editing;

import app.yubble.core.focus.DefocusField;
import app.yubble.core.inspect.EdgeInspector;
import app.yubble.core.inspect.Fault;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Size;
import app.yubble.core.recipe.DepthChoice;
import app.yubble.core.recipe.Recipe;
import app.yubble.core.refocus.RefocusLine;
import app.yubble.core.touchup.Touchup;
import app.yubble.server.account.SignedIn;
import app.yubble.server.problem.RefusedException;
import app.yubble.server.shoot.Shot;
import app.yubble.server.shoot.ShotStill;
import app.yubble.server.shoot.Shots;
import jakarta.validation.Valid;
import jakarta.validation.constraints.DecimalMax;
import jakarta.validation.constraints.DecimalMin;
import jakarta.validation.constraints.NotNull;
import java.util.List;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** The edge inspector: where depth is probably wrong, and what was looked at already. */
@RestController
class InspectorController {
    // A fault that is found again lies a little elsewhere when something beside it was mended.
    private static final double SAME_PLACE = 0.02;
    private static final int MOST_PLACES = 2000;

    private final Shots shots;
    private final RefocusLine line;
    private final ShotRecipes recipes;
    private final InspectedPlaceRepository places;
    private final Drawing drawing;

    InspectorController(
            Shots shots, RefocusLine line, ShotRecipes recipes, InspectedPlaceRepository places, Drawing drawing) {
        this.drawing = drawing;
        this.shots = shots;
        this.line = line;
        this.recipes = recipes;
        this.places = places;
    }

    /**
     * @param left of the box around it, in shares of the picture, as are the next three
     * @param x of a point in it
     * @param verdict null until it was looked at
     * @param proposal the touch-up that would mend it
     */
    record FaultView(
            Fault.Kind kind,
            double left,
            double top,
            double width,
            double height,
            double x,
            double y,
            InspectedPlace.@Nullable Verdict verdict,
            Touchup proposal) {}

    /** Places that probably need a touch-up with this recipe, the most visible first. */
    @PostMapping("/api/shots/{id}/faults")
    List<FaultView> faults(
            @AuthenticationPrincipal SignedIn who,
            @PathVariable UUID id,
            @RequestParam(required = false) @Nullable Integer frame,
            @RequestBody Recipe wanted) {
        Shot shot = shots.owned(id, who.id());
        ShotStill still = recipes.still(shot, frame);
        Recipe recipe = recipes.allowed(wanted, who).at(still.moment());
        List<Fault> faults = drawing.inTurn(who.id(), () -> faults(shot, still, recipe));
        List<InspectedPlace> known = places.findByShotId(id);
        return faults.stream().map(each -> view(each, known)).toList();
    }

    private List<Fault> faults(Shot shot, ShotStill still, Recipe recipe) {
        Size size = shot.size().fitting(EdgeInspector.SIDE);
        Plane nearness = line.nearness(still, recipe, size);
        double radius = recipe.aperture().radiusPerNearness(size, recipe.band().centre());
        Plane field = DefocusField.of(nearness, recipe.band(), recipe.gain(), radius);
        // Only estimates are made with a matte.
        Plane matte = recipe.depth().source() == DepthChoice.Source.ESTIMATED ? still.clearMatte() : null;
        return EdgeInspector.faults(line.picture(still, size), nearness, field, matte);
    }

    private static FaultView view(Fault fault, List<InspectedPlace> known) {
        InspectedPlace.Verdict verdict = known.stream()
                .filter(place -> place.isAt(fault.kind(), fault.x(), fault.y(), SAME_PLACE))
                .map(InspectedPlace::verdict)
                .findFirst()
                .orElse(null);
        return new FaultView(
                fault.kind(),
                fault.left(),
                fault.top(),
                fault.width(),
                fault.height(),
                fault.x(),
                fault.y(),
                verdict,
                fault.proposal());
    }

    record Inspected(
            Fault.@NotNull Kind kind,
            @DecimalMin("0") @DecimalMax("1") double x,
            @DecimalMin("0") @DecimalMax("1") double y,
            InspectedPlace.@NotNull Verdict verdict) {}

    /** Remembers that a place was looked at. */
    @PostMapping("/api/shots/{id}/inspected")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    @Transactional
    void inspected(@AuthenticationPrincipal SignedIn who, @PathVariable UUID id, @RequestBody @Valid Inspected seen) {
        shots.owned(id, who.id());
        List<InspectedPlace> known = places.findByShotId(id);
        InspectedPlace place = known.stream()
                .filter(each -> each.isAt(seen.kind(), seen.x(), seen.y(), SAME_PLACE))
                .findFirst()
                .orElse(null);
        if (place != null) {
            place.judge(seen.verdict());
            return;
        }
        if (known.size() >= MOST_PLACES) {
            throw new RefusedException("More than " + MOST_PLACES + " places of one photo are not remembered.");
        }
        places.save(new InspectedPlace(id, seen.kind(), seen.x(), seen.y(), seen.verdict()));
    }
}
