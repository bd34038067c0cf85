package app.yubble.server.editing;

import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Progress;
import app.yubble.core.raster.Region;
import app.yubble.core.raster.Resample;
import app.yubble.core.raster.Size;
import app.yubble.core.recipe.Course;
import app.yubble.core.recipe.Recipe;
import app.yubble.core.refocus.RefocusLine;
import app.yubble.core.refocus.View;
import app.yubble.server.account.SignedIn;
import app.yubble.server.follow.Follows;
import app.yubble.server.problem.RefusedException;
import app.yubble.server.shoot.Shot;
import app.yubble.server.shoot.ShotMaterial;
import app.yubble.server.shoot.ShotStill;
import app.yubble.server.shoot.Shots;
import io.swagger.v3.oas.annotations.media.Content;
import io.swagger.v3.oas.annotations.media.Schema;
import io.swagger.v3.oas.annotations.responses.ApiResponse;
import jakarta.validation.Valid;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotNull;
import java.nio.ByteBuffer;
import java.time.Duration;
import java.util.List;
import java.util.UUID;
import java.util.concurrent.CancellationException;
import org.jspecify.annotations.Nullable;
import org.springframework.http.CacheControl;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** What the Bench draws: previews, the untouched photo, and nearness. */
@RestController
class PreviewController {
    private static final int MOST_TOUCHUPS = 1000;

    private final Shots shots;
    private final RefocusLine line;
    private final ShotRecipes recipes;
    private final PreviewDesk desk;
    private final Untouched untouched;
    private final Drawing drawing;
    private final Follows follows;
    private final PreviewFigures figures;

    PreviewController(
            Shots shots,
            RefocusLine line,
            ShotRecipes recipes,
            PreviewDesk desk,
            Untouched untouched,
            Drawing drawing,
            Follows follows,
            PreviewFigures figures) {
        this.figures = figures;
        this.follows = follows;
        this.drawing = drawing;
        this.shots = shots;
        this.line = line;
        this.recipes = recipes;
        this.desk = desk;
        this.untouched = untouched;
    }

    /**
     * @param longSide of the whole picture in pixels; more than 2560 only for a region
     * @param region the part that is wanted; null for all
     * @param page names the open page; of its requests only the one with the highest number is answered
     * @param frame of a clip, from 0; null is the first
     * @param over number of the answer of the same size and region that the page still has; only what has changed is sent then
     * @param draft whether a smaller picture soon is better than this size later: it is as much smaller as others wait
     * @param order ids of all touch-ups; those that the recipe leaves out are as in the answer {@code over}
     */
    record PreviewRequest(
            @NotNull Recipe recipe,
            @Min(16) @Max(40000) int longSide,
            @Nullable @Valid RegionPart region,

            @NotNull @jakarta.validation.constraints.Size(min = 1, max = 64)
            String page,

            long number,
            @Nullable Integer frame,
            @Nullable Long over,
            @Nullable Boolean draft,

            @Nullable @jakarta.validation.constraints.Size(max = MOST_TOUCHUPS)
            List<String> order) {}

    /** In shares of the picture's width and height. */
    record RegionPart(double x, double y, double width, double height) {
        /** The pixels that it touches; never empty. */
        Region within(Size size) {
            int left = limited(x * size.width(), size.width() - 1);
            int top = limited(y * size.height(), size.height() - 1);
            int right = Math.max(left + 1, limited(Math.ceil((x + width) * size.width()), size.width()));
            int bottom = Math.max(top + 1, limited(Math.ceil((y + height) * size.height()), size.height()));
            return new Region(left, top, right - left, bottom - top);
        }

        private static int limited(double value, int most) {
            return (int) Math.max(0, Math.min(most, value));
        }
    }

    /** A picture, and what it is of. */
    private record Drawn(View view, Picture picture) {}

    /**
     * A JPEG of the result, or 204 when the same page has asked for a newer one. {@code X-Region} tells where it lies in the
     * picture; {@code X-Over} that it is to be laid over the answer with that number.
     */
    @PostMapping("/api/shots/{id}/preview")
    @ApiResponse(
            responseCode = "200",
            content = @Content(mediaType = "image/jpeg", schema = @Schema(type = "string", format = "binary")))
    ResponseEntity<byte[]> preview(
            @AuthenticationPrincipal SignedIn who, @PathVariable UUID id, @RequestBody @Valid PreviewRequest wanted) {
        ServerTiming timing = new ServerTiming();
        Shot shot = shots.owned(id, who.id());
        Recipe sent = recipes.allowed(wanted.recipe(), who);
        Recipe recipe = wanted.order() == null
                ? sent
                : desk.whole(who.id(), wanted.page(), sent, wanted.over(), wanted.order());
        Progress ticket = desk.ticket(who.id(), wanted.page(), wanted.number());
        try {
            ticket.at(0);
            ShotMaterial material = recipes.material(shot);
            ShotStill still = material.frame(wanted.frame() == null ? 0 : wanted.frame());
            Course course = follows.course(shot, material, recipe);
            Size asked = sizeOf(shot, wanted.longSide(), wanted.region() != null);
            Drawn drawn = drawing.inTurn(who.id(), asked, ticket, () -> {
                timing.done("wait");
                Size size = Boolean.TRUE.equals(wanted.draft())
                        ? shot.size().fitting(drawing.hurried(asked.longSide()))
                        : asked;
                View view = new View(
                        size,
                        wanted.region() == null
                                ? Region.all(size)
                                : wanted.region().within(size));
                return new Drawn(
                        view,
                        desk.look(
                                who.id(),
                                wanted.page(),
                                viewer -> line.render(viewer, still, course.at(still.moment()), view, ticket)));
            });
            timing.done("draw");
            Size size = drawn.view().size();
            Region region = drawn.view().part();
            Picture result = drawn.picture();
            Region news = desk.news(
                    who.id(),
                    wanted.page(),
                    new PreviewDesk.Answer(wanted.number(), shot.id(), recipe, size, region, result),
                    wanted.over());
            ResponseEntity.BodyBuilder answer =
                    ResponseEntity.ok().contentType(MediaType.IMAGE_JPEG).cacheControl(CacheControl.noStore());
            if (news != null) {
                answer.header("X-Over", String.valueOf(wanted.over()));
                region = new Region(region.x() + news.x(), region.y() + news.y(), news.width(), news.height());
                result = Resample.crop(result, news);
            }
            timing.done("compare");
            byte[] jpeg = untouched.jpeg(result, shot);
            timing.done("encode");
            figures.drawn(size, jpeg.length, timing.nanos());
            return answer.header("X-Region", told(region, size))
                    .header("Server-Timing", timing.header("preview"))
                    .body(jpeg);
        } catch (CancellationException superseded) {
            figures.superseded();
            return ResponseEntity.noContent().build();
        }
    }

    /** Previews of the whole come from the reduced picture; a region may be larger, as far as memory allows. */
    private static Size sizeOf(Shot shot, int longSide, boolean ofRegion) {
        Size size = shot.size().fitting(longSide);
        if (size.longSide() > Shots.PROXY_SIDE && !ofRegion) {
            throw new RefusedException("More than " + Shots.PROXY_SIDE + " pixels are drawn of a region only.");
        }
        return Drawing.closest(size);
    }

    /** Left, top, width and height of a region, then the width and height of the whole. */
    private static String told(Region region, Size size) {
        return region.x() + " " + region.y() + " " + region.width() + " " + region.height() + " " + size.width() + " "
                + size.height();
    }

    /** The untouched photo at a size, or a region of it; whoever keeps it gives each picture of a shot an address of its own. */
    @GetMapping("/api/shots/{id}/photo")
    @ApiResponse(
            responseCode = "200",
            content = @Content(mediaType = "image/jpeg", schema = @Schema(type = "string", format = "binary")))
    ResponseEntity<byte[]> photo(
            @AuthenticationPrincipal SignedIn who,
            @PathVariable UUID id,
            @RequestParam @Min(16) @Max(40000) int longSide,
            @RequestParam(required = false) @Nullable List<Double> region,
            @RequestParam(required = false) @Nullable Integer frame) {
        Shot shot = shots.owned(id, who.id());
        RegionPart wanted = region == null || region.size() != 4
                ? null
                : new RegionPart(region.get(0), region.get(1), region.get(2), region.get(3));
        Size size = sizeOf(shot, longSide, wanted != null);
        Region part = wanted == null ? Region.all(size) : wanted.within(size);
        ShotStill still = recipes.still(shot, frame);
        byte[] jpeg = part.equals(Region.all(size))
                ? untouched.whole(who.id(), shot, still, size)
                : untouched.jpeg(
                        drawing.inTurn(
                                who.id(), size, Progress.NONE, () -> Resample.crop(line.picture(still, size), part)),
                        shot);
        return ResponseEntity.ok()
                .header("X-Region", told(part, size))
                .contentType(MediaType.IMAGE_JPEG)
                .cacheControl(CacheControl.maxAge(Duration.ofDays(30)).cachePrivate())
                .body(jpeg);
    }

    /**
     * Nearness of every pixel, after the touch-ups, at up to 1024 pixels: two 32-bit integers, width and height, then one 16-bit integer for
     * each pixel, 65535 nearest; all little-endian.
     */
    @PostMapping("/api/shots/{id}/nearness")
    @ApiResponse(
            responseCode = "200",
            content =
                    @Content(
                            mediaType = "application/octet-stream",
                            schema = @Schema(type = "string", format = "binary")))
    ResponseEntity<byte[]> nearness(
            @AuthenticationPrincipal SignedIn who,
            @PathVariable UUID id,
            @RequestParam(required = false) @Nullable Integer frame,
            @RequestBody Recipe wanted) {
        Shot shot = shots.owned(id, who.id());
        ShotStill still = recipes.still(shot, frame);
        Recipe recipe = recipes.allowed(wanted, who).at(still.moment());
        Plane plane = drawing.inTurn(
                who.id(), () -> line.nearness(still, recipe, shot.size().fitting(NumberMaps.SIDE)));
        ByteBuffer out = NumberMaps.headed(plane.size(), 2);
        for (float sample : plane.samples()) {
            out.putShort((short) Math.round(Math.max(0, Math.min(1, sample)) * 65535));
        }
        return NumberMaps.answer(out, CacheControl.noStore());
    }
}
