package app.yubble.server.delivery;

import app.yubble.core.recipe.Course;
import app.yubble.core.recipe.Recipe;
import app.yubble.core.touchup.Span;
import app.yubble.core.touchup.Touchup;
import app.yubble.media.recipe.RecipeJson;
import app.yubble.server.shoot.ShotMaterial;
import app.yubble.server.shoot.ShotStill;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.HexFormat;
import java.util.List;

/** Names stretches of rendered frames by all that they depend on, so that nothing is rendered twice. */
final class StretchNames {
    /** Grows whenever the same settings begin to give other pictures, or other files. */
    private static final String LINE = "line 1";

    private final ShotMaterial material;
    private final Course course;
    /** What all stretches have in common: thousands of strokes are hashed once. */
    private final String common;

    /**
     * @param course of the recipe
     * @param how their size, format and quality
     */
    StretchNames(ShotMaterial material, Recipe recipe, Course course, String how) {
        this.material = material;
        this.course = course;
        List<Touchup> painted =
                recipe.touchups().stream().map(each -> each.withSpan(Span.ALL)).toList();
        common = hash(digest -> {
            add(digest, LINE + " " + how);
            add(digest, RecipeJson.write(Recipe.INITIAL.withTouchups(painted)));
        });
    }

    /**
     * @param from first frame
     * @param end the first that no longer belongs to it
     */
    String of(int from, int end) {
        return hash(digest -> {
            add(digest, common);
            for (int frame = from; frame < end; frame++) {
                ShotStill still = material.frame(frame);
                Recipe now = course.at(still.moment());
                add(digest, still.id() + " " + still.moment().micros());
                add(digest, still.depthId(now.depth().source()));
                // A ladder stands on the depth of the moments at which it was clicked.
                now.depth()
                        .ladder()
                        .forEach(rung -> add(
                                digest, still.at(rung.at()).depthId(now.depth().source())));
                add(
                        digest,
                        now.touchups().stream().map(Touchup::strength).toList().toString());
                add(digest, RecipeJson.write(now.withTouchups(List.of())));
            }
        });
    }

    /** Fills a digest. */
    @FunctionalInterface
    private interface Filling {
        void of(MessageDigest digest);
    }

    private static String hash(Filling filling) {
        try {
            MessageDigest digest = MessageDigest.getInstance("SHA-256");
            filling.of(digest);
            return HexFormat.of().formatHex(digest.digest());
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException("every Java platform has SHA-256", e);
        }
    }

    private static void add(MessageDigest digest, String text) {
        digest.update(text.getBytes(StandardCharsets.UTF_8));
        digest.update((byte) 0);
    }
}
