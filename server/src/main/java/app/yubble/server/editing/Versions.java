package app.yubble.server.editing;

import app.yubble.core.clip.Moment;
import app.yubble.core.focus.SharpBand;
import app.yubble.core.lens.Aperture;
import app.yubble.core.recipe.DepthChoice;
import app.yubble.core.recipe.Recipe;
import app.yubble.core.shape.BlurShape;
import app.yubble.core.touchup.Touchup;
import app.yubble.media.picture.Camera;
import app.yubble.server.depth.DepthJob;
import app.yubble.server.problem.ConflictException;
import app.yubble.server.problem.NotFoundException;
import app.yubble.server.problem.RefusedException;
import app.yubble.server.shoot.Clips;
import app.yubble.server.shoot.Shot;
import app.yubble.server.shoot.Shots;
import java.time.Duration;
import java.time.Instant;
import java.util.EnumSet;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.UUID;
import java.util.stream.Collectors;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Isolation;
import org.springframework.transaction.annotation.Transactional;

/** Recipes and their history. */
@Service
public class Versions {
    private static final int LONGEST_HISTORY = 500;
    private static final int LONGEST_STEP = 120;
    /** They are listed with their recipes. */
    private static final int MOST_VERSIONS = 100;

    private static final Duration KEPT = Duration.ofDays(1);
    /** Diameter over the picture's longer side: moderate, but plain to see at a glance. By eye on the demo photos. */
    private static final double WIDEST_DISC = 0.025;
    /** Millimetres; a photo that does not tell its lens gets one that is made to blur, as for portraits. */
    private static final double LENS_OF_NO_CAMERA = 85;
    /** Nearness. With less behind the subject no aperture would show. */
    private static final double LEAST_BEHIND = 0.02;

    private static final String FIRST_NAME = "First";
    private static final String FIRST_STEP = "Main subject";

    private final VersionRepository versions;
    private final EditRepository edits;
    private final Shots shots;
    private final RecipeStore recipes;

    Versions(VersionRepository versions, EditRepository edits, Shots shots, RecipeStore recipes) {
        this.recipes = recipes;
        this.versions = versions;
        this.edits = edits;
        this.shots = shots;
    }

    /** A version's recipe and where it stands in its history. */
    record Standing(Version version, Recipe recipe, List<StepName> history) {}

    /** The moment depth is there, a shot gets its first version: the subject sharp, a moderate blur. */
    @EventListener
    @Transactional
    public void onDepth(DepthJob.DepthReady ready) {
        List<UUID> known = versions.findIds(ready.shot());
        Shot shot = shots.byId(ready.shot());
        if (known.isEmpty()) {
            create(shot, FIRST_NAME, FIRST_STEP, automatic(shot, ready));
        } else if (shot.isClip() && ready.settled() && known.size() == 1) {
            refind(shot, known.get(0), automatic(shot, ready));
        }
    }

    /** The first frame was known before the scale of all: who has not changed anything since gets the subject again. */
    private void refind(Shot shot, UUID only, Recipe recipe) {
        Version version = held(only, shot.accountId());
        List<StepName> history = edits.findStepsByVersionIdInOrderByPosition(List.of(only));
        if (history.size() == 1 && history.get(0).getName().equals(FIRST_STEP)) {
            append(version, FIRST_STEP, recipe);
        }
    }

    private static Recipe automatic(Shot shot, DepthJob.DepthReady ready) {
        Camera camera = shot.camera();
        Aperture usual = Aperture.DEFAULT;
        double focal = limited(camera.focalLength().orElse(LENS_OF_NO_CAMERA), 1, 2000);
        Aperture aperture = usual.withLens(
                focal,
                limited(camera.sensorWidth().orElse(usual.sensorWidth()), 1, 200),
                limited(Math.max(camera.distance().orElse(usual.distance()), focal / 1000 * 1.5), 0.01, 10000));
        SharpBand subject = ready.subject();
        double behind = subject.outside(ready.farthest());
        return Recipe.INITIAL
                .withBand(subject)
                .withAperture(
                        behind < LEAST_BEHIND
                                ? aperture
                                : aperture.withWidestDisc(WIDEST_DISC, behind, shot.size(), subject.centre()))
                .withDepth(DepthChoice.of(ready.source()));
    }

    private static double limited(double value, double low, double high) {
        return Math.max(low, Math.min(high, value));
    }

    private Standing create(Shot shot, String name, String step, Recipe recipe) {
        Version version = versions.save(new Version(shot.id(), name));
        edits.save(new Edit(version.id(), 0, step, recipes.write(shot.id(), recipe)));
        return standing(version);
    }

    @Transactional(readOnly = true)
    public List<Standing> of(UUID shot, UUID account) {
        shots.owned(shot, account);
        return standing(shot, versions.findByShotIdAndRemovedIsNullOrderByCreated(shot), edits.findCurrent(shot));
    }

    /** A version as it stands now. */
    public record Named(String name, Recipe recipe) {}

    /** Those of a shot, the oldest first. */
    @Transactional(readOnly = true)
    public List<Named> named(UUID shot, UUID account) {
        return of(shot, account).stream()
                .map(each -> new Named(each.version().name(), each.recipe()))
                .toList();
    }

    @Transactional(readOnly = true)
    public Standing owned(UUID id, UUID account) {
        return standing(versions.findOwned(id, account).orElseThrow(() -> new NotFoundException("version")));
    }

    /** A new version with the recipe of {@code from}. */
    @Transactional
    public Standing duplicate(UUID from, String name, UUID account) {
        Standing source = owned(from, account);
        Shot shot = shots.owned(source.version().shotId(), account);
        requireRoom(shot.id());
        return create(shot, name, "From " + source.version().name(), source.recipe());
    }

    /** A new version with a recipe that comes from elsewhere. */
    @Transactional
    public Standing takeUp(Shot shot, UUID account, String name, Recipe recipe) {
        shots.owned(shot.id(), account);
        requireRoom(shot.id());
        return create(shot, name, "From a file", recipe);
    }

    private void requireRoom(UUID shot) {
        if (versions.findIds(shot).size() >= MOST_VERSIONS) {
            throw new RefusedException("A shot has at most " + MOST_VERSIONS + " versions.");
        }
    }

    /** Appends a step; what had been undone is forgotten. */
    @Transactional
    public Standing edit(UUID id, UUID account, long expectedLock, String step, Recipe recipe) {
        Version version = locked(id, account, expectedLock);
        Clips.requireMarksWithin(recipe, shots.byId(version.shotId()));
        append(version, step, recipe);
        return standing(version);
    }

    private void append(Version version, String step, Recipe recipe) {
        int position = version.position() + 1;
        edits.deleteOutside(version.id(), position - LONGEST_HISTORY, version.position());
        edits.save(new Edit(version.id(), position, step, recipes.write(version.shotId(), recipe)));
        version.moveTo(position);
    }

    /** Goes to any step of the history. */
    @Transactional
    public Standing goTo(UUID id, UUID account, long expectedLock, int position) {
        Version version = locked(id, account, expectedLock);
        if (edits.findByVersionIdAndPosition(id, position).isEmpty()) {
            throw new NotFoundException("step");
        }
        version.moveTo(position);
        return standing(version);
    }

    @Transactional
    public Standing rename(UUID id, UUID account, String name) {
        Version version = held(id, account);
        version.rename(name);
        return standing(version);
    }

    /** Hides a version, so that it can be brought back; those removed more than a day ago go for good. */
    @Transactional
    public void remove(UUID id, UUID account) {
        Version version = held(id, account);
        if (versions.findByShotIdAndRemovedIsNullOrderByCreated(version.shotId())
                        .size()
                == 1) {
            throw new ConflictException("A shot keeps at least one version.");
        }
        versions.deleteRemoved(version.shotId(), Instant.now().minus(KEPT));
        version.remove();
    }

    @Transactional
    public Standing bringBack(UUID id, UUID account) {
        Version version = versions.lockOwned(id, account).orElseThrow(() -> new NotFoundException("version"));
        version.bringBack();
        return standing(version);
    }

    /**
     * Gives other shots parts of a version's recipe, each as one step of the history of its first version.
     *
     * @return how many were changed
     */
    @Transactional(isolation = Isolation.READ_COMMITTED)
    public int copyTo(UUID from, UUID account, Set<RecipePart> parts, List<UUID> targets) {
        Standing source = owned(from, account);
        Shot shot = shots.owned(source.version().shotId(), account);
        String step = "Copied from " + shot.name();
        int changed = 0;
        // In one order, so that two who copy do not wait for each other.
        for (UUID target : targets.stream().sorted().toList()) {
            Set<RecipePart> fitting = EnumSet.copyOf(parts);
            if (!shots.owned(target, account).size().equals(shot.size())) {
                fitting.remove(RecipePart.TOUCHUPS);
            }
            UUID first = versions.findIds(target).stream().findFirst().orElse(null);
            if (first != null && !first.equals(from) && !fitting.isEmpty()) {
                // Locked before it is read: whoever edits it at this moment loses nothing.
                Version version = held(first, account);
                Recipe after = standing(version).recipe();
                for (RecipePart part : fitting) {
                    after = part.copy(fittingTime(source.recipe(), shots.byId(target)), after);
                }
                append(version, shortened(step), after);
                changed++;
            }
        }
        return changed;
    }

    /** A recipe for a shot of another length: where its marks do not fit, what it is at the first moment. */
    private static Recipe fittingTime(Recipe recipe, Shot target) {
        if (Clips.marksFit(recipe, target)) {
            return recipe;
        }
        List<BlurShape> placed =
                recipe.shapes().stream().map(each -> each.at(0, null)).toList();
        // What is kept through one clip means nothing in another.
        List<Touchup> painted = recipe.touchups().stream()
                .filter(each -> each.start().kept().isEmpty())
                .toList();
        return recipe.at(Moment.ONLY).withTouchups(painted).withShapes(placed);
    }

    private static String shortened(String step) {
        return step.length() <= LONGEST_STEP ? step : step.substring(0, LONGEST_STEP);
    }

    private Version held(UUID id, UUID account) {
        return versions.lockOwned(id, account)
                .filter(version -> !version.isRemoved())
                .orElseThrow(() -> new NotFoundException("version"));
    }

    private Version locked(UUID id, UUID account, long expectedLock) {
        Version version = held(id, account);
        if (version.lockVersion() != expectedLock) {
            throw new ConflictException("This version was changed in another tab. Load it again to go on from there.");
        }
        return version;
    }

    private Standing standing(Version version) {
        List<Edit> current = edits.findByVersionIdAndPosition(version.id(), version.position()).stream()
                .toList();
        return standing(version.shotId(), List.of(version), current).get(0);
    }

    /** @param current the step that each of the versions stands at, in any order */
    private List<Standing> standing(UUID shot, List<Version> many, List<Edit> current) {
        Map<UUID, List<StepName>> histories =
                edits
                        .findStepsByVersionIdInOrderByPosition(
                                many.stream().map(Version::id).toList())
                        .stream()
                        .collect(Collectors.groupingBy(StepName::getVersionId));
        List<Recipe> all = recipes.read(shot, current.stream().map(Edit::recipe).toList());
        Map<UUID, Recipe> byVersion = new HashMap<>();
        for (int i = 0; i < all.size(); i++) {
            byVersion.put(current.get(i).versionId(), all.get(i));
        }
        return many.stream()
                .map(version -> new Standing(
                        version,
                        Objects.requireNonNull(
                                byVersion.get(version.id()), () -> "version " + version.id() + " stands at no step"),
                        histories.getOrDefault(version.id(), List.of())))
                .toList();
    }
}
