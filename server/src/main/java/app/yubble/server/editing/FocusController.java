package app.yubble.server.editing;

import app.yubble.core.focus.EdgeWidth;
import app.yubble.core.focus.FocusFinder;
import app.yubble.core.focus.SharpBand;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Size;
import app.yubble.core.recipe.Recipe;
import app.yubble.core.refocus.RefocusLine;
import app.yubble.core.subject.Face;
import app.yubble.core.subject.Instances;
import app.yubble.core.touchup.Touchup;
import app.yubble.server.account.SignedIn;
import app.yubble.server.problem.RefusedException;
import app.yubble.server.shoot.Faces;
import app.yubble.server.shoot.Shot;
import app.yubble.server.shoot.ShotStill;
import app.yubble.server.shoot.Shots;
import io.swagger.v3.oas.annotations.media.Content;
import io.swagger.v3.oas.annotations.media.Schema;
import io.swagger.v3.oas.annotations.responses.ApiResponse;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import java.nio.ByteBuffer;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.http.CacheControl;
import org.springframework.http.ResponseEntity;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** Where to focus, what there is to focus on, and where the photo itself is sharp. */
@RestController
class FocusController {
    private static final int CHECK_SIDE = 2048;
    private static final int THINGS_SIDE = 256;
    private static final int MOST_THINGS = 9;

    private final Shots shots;
    private final RefocusLine line;
    private final ShotRecipes recipes;
    private final Faces faces;
    private final Drawing drawing;

    FocusController(Shots shots, RefocusLine line, ShotRecipes recipes, Faces faces, Drawing drawing) {
        this.drawing = drawing;
        this.faces = faces;
        this.shots = shots;
        this.line = line;
        this.recipes = recipes;
    }

    /** What to focus on: the subject, a face or a thing by its number, or a spot or a patch in shares of width and height. */
    enum FocusKind {
        SUBJECT,
        FACE,
        THING,
        SPOT,
        PATCH
    }

    record FocusRequest(
            @NotNull FocusKind kind,
            @NotNull Recipe recipe,
            @Nullable Integer number,
            @Nullable Double x,
            @Nullable Double y,
            @Nullable Double width,
            @Nullable Double height,
            @Nullable Integer frame) {}

    private static double shareOf(@Nullable Double share, int side) {
        return share == null ? 0 : share * side;
    }

    /** The sharp band for a place; it keeps the tilt of the recipe's band. */
    @PostMapping("/api/shots/{id}/focus")
    SharpBand focus(
            @AuthenticationPrincipal SignedIn who, @PathVariable UUID id, @RequestBody @Valid FocusRequest wanted) {
        Shot shot = shots.owned(id, who.id());
        ShotStill still = recipes.still(shot, wanted.frame());
        Recipe recipe = recipes.allowed(wanted.recipe(), who).at(still.moment());
        Size size = shot.size().fitting(NumberMaps.SIDE);
        return drawing.inTurn(who.id(), () -> {
            Plane nearness = line.nearness(still, withoutBlur(recipe), size);
            return FocusFinder.tiltedAs(recipe.band(), nearness, plane -> band(wanted, still, plane));
        });
    }

    /** Painted blur leads away from the band, so no band can reach it: what is under it is what one focuses on. */
    private static Recipe withoutBlur(Recipe recipe) {
        return recipe.withTouchups(recipe.touchups().stream()
                .filter(each -> each.action() != Touchup.Action.BLUR)
                .toList());
    }

    private SharpBand band(FocusRequest wanted, ShotStill still, Plane nearness) {
        Size size = nearness.size();
        double x = shareOf(wanted.x(), size.width());
        double y = shareOf(wanted.y(), size.height());
        return switch (wanted.kind()) {
            case SUBJECT ->
                FocusFinder.subject(line.picture(still, size), nearness, still.clearMatte(), faces.of(still));
            case FACE -> face(nearness, faces.of(still), wanted.number());
            case THING -> thing(nearness, still.clearMatte(), wanted.number());
            case SPOT -> FocusFinder.spot(nearness, x, y);
            case PATCH ->
                FocusFinder.patch(
                        nearness, x, y, shareOf(wanted.width(), size.width()), shareOf(wanted.height(), size.height()));
        };
    }

    private static SharpBand face(Plane nearness, List<Face> all, @Nullable Integer number) {
        if (number == null || number < 1 || number > all.size()) {
            throw new RefusedException("There is no such face in this photo.");
        }
        return FocusFinder.face(nearness, all.get(number - 1));
    }

    private static SharpBand thing(Plane nearness, @Nullable Plane matte, @Nullable Integer number) {
        if (matte == null
                || number == null
                || number < 1
                || number > FocusFinder.things(matte).count()) {
            throw new RefusedException("There is no such subject in this photo.");
        }
        return FocusFinder.thing(nearness, matte, number);
    }

    /** One thing in the photo: its number and its middle, in shares of width and height. */
    record ThingView(int number, double x, double y) {}

    /** A place in shares of width and height. */
    record PlaceView(double x, double y) {
        static PlaceView of(Face.Point point) {
            return new PlaceView(point.x(), point.y());
        }
    }

    /** A face: its number, the box around it in shares of width and height, and its eyes. */
    record FaceView(int number, double left, double top, double width, double height, List<PlaceView> eyes) {
        static FaceView of(int number, Face face) {
            List<PlaceView> eyes = List.of(PlaceView.of(face.one()), PlaceView.of(face.other()));
            return new FaceView(number, face.left(), face.top(), face.width(), face.height(), eyes);
        }
    }

    /**
     * What there is to focus on.
     *
     * @param labels which pixel belongs to which thing: one byte a pixel, row by row, 0 for none
     * @param faces the main one first
     */
    record ThingsView(int width, int height, byte[] labels, List<ThingView> things, List<FaceView> faces) {}

    /** The faces, and the separate things that the subject network found, the largest first. */
    @GetMapping("/api/shots/{id}/things")
    ThingsView things(
            @AuthenticationPrincipal SignedIn who,
            @PathVariable UUID id,
            @RequestParam(required = false) @Nullable Integer frame) {
        ShotStill still = recipes.still(shots.owned(id, who.id()), frame);
        return drawing.inTurn(who.id(), () -> things(still));
    }

    private ThingsView things(ShotStill still) {
        List<Face> people = faces.of(still).stream().limit(MOST_THINGS).toList();
        List<FaceView> views = new ArrayList<>();
        people.forEach(each -> views.add(FaceView.of(views.size() + 1, each)));
        Plane matte = still.clearMatte();
        if (matte == null) {
            return new ThingsView(0, 0, new byte[0], List.of(), views);
        }
        Instances all = FocusFinder.things(matte);
        Instances found = all.reduced(new Size(all.width(), all.height()).fitting(THINGS_SIDE), MOST_THINGS);
        byte[] labels = new byte[found.labels().length];
        for (int i = 0; i < labels.length; i++) {
            labels[i] = (byte) found.labels()[i];
        }
        List<ThingView> things = new ArrayList<>();
        for (int number = 1; number <= found.count(); number++) {
            double[] middle = found.middle(number);
            if (middle != null) {
                things.add(new ThingView(number, middle[0], middle[1]));
            }
        }
        return new ThingsView(found.width(), found.height(), labels, things, views);
    }

    /**
     * How soft the photo's own edges are, at up to 1024 pixels: two little-endian 32-bit integers, width and height, then for
     * each pixel a byte: 0 without an edge, else its width in fiftieths of a pixel of the photo at 2048 pixels.
     */
    @GetMapping("/api/shots/{id}/edge-widths")
    @ApiResponse(
            responseCode = "200",
            content =
                    @Content(
                            mediaType = "application/octet-stream",
                            schema = @Schema(type = "string", format = "binary")))
    ResponseEntity<byte[]> edgeWidths(
            @AuthenticationPrincipal SignedIn who,
            @PathVariable UUID id,
            @RequestParam(required = false) @Nullable Integer frame) {
        Shot shot = shots.owned(id, who.id());
        ShotStill still = recipes.still(shot, frame);
        Plane widths = drawing.inTurn(who.id(), () -> {
            Plane light = line.picture(still, shot.size().fitting(CHECK_SIDE)).lightness();
            return EdgeWidth.sharpest(EdgeWidth.of(light), shot.size().fitting(NumberMaps.SIDE));
        });
        ByteBuffer out = NumberMaps.headed(widths.size(), 1);
        for (float width : widths.samples()) {
            out.put((byte) Math.min(255, Math.round(width * 50)));
        }
        return NumberMaps.answer(out, CacheControl.maxAge(Duration.ofDays(1)).cachePrivate());
    }
}
