package app.yubble.server.delivery;

import app.yubble.core.clip.Moment;
import app.yubble.core.recipe.Recipe;
import app.yubble.core.refocus.Still;
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

    private StretchNames() {}

    /**
     * @param from first frame
     * @param end the first that no longer belongs to it
     * @param how its size, format and quality
     */
    static String of(ShotMaterial material, Recipe recipe, int from, int end, String how) {
        try {
            MessageDigest digest = MessageDigest.getInstance("SHA-256");
            add(digest, LINE + " " + how);
            List<Touchup> painted = recipe.touchups().stream()
                    .map(each -> each.withSpan(Span.ALL))
                    .toList();
            add(digest, RecipeJson.write(Recipe.INITIAL.withTouchups(painted)));
            for (int frame = from; frame < end; frame++) {
                ShotStill still = material.frame(frame);
                Moment moment = still.moment();
                Recipe now = recipe.at(moment);
                add(digest, still.id() + " " + moment.micros() + " " + depthId(still, now));
                add(
                        digest,
                        now.touchups().stream().map(Touchup::strength).toList().toString());
                add(digest, RecipeJson.write(now.withTouchups(List.of())));
            }
            return HexFormat.of().formatHex(digest.digest());
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException("every Java platform has SHA-256", e);
        }
    }

    private static String depthId(Still still, Recipe recipe) {
        return still.depthId(recipe.depth().source());
    }

    private static void add(MessageDigest digest, String text) {
        digest.update(text.getBytes(StandardCharsets.UTF_8));
        digest.update((byte) 0);
    }
}
