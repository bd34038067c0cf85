package app.yubble.server.editing;

import app.yubble.core.recipe.Recipe;
import app.yubble.server.account.SignedIn;
import app.yubble.server.mask.MaskFiles;
import app.yubble.server.shoot.Materials;
import app.yubble.server.shoot.Shot;
import app.yubble.server.shoot.ShotMaterial;
import app.yubble.server.shoot.ShotStill;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** What a request works with: a shot's material, and a recipe that may use only what its sender brought in. */
@Component
class ShotRecipes {
    private final Materials materials;
    private final MaskFiles masks;

    ShotRecipes(Materials materials, MaskFiles masks) {
        this.materials = materials;
        this.masks = masks;
    }

    ShotMaterial material(Shot shot) {
        return materials.of(shot);
    }

    /** A moment of a shot, by the number of its frame from 0; null is the first. */
    ShotStill still(Shot shot, @Nullable Integer frame) {
        return materials.of(shot).frame(frame == null ? 0 : frame);
    }

    /** The recipe, when its sender may use all that it names. */
    Recipe allowed(Recipe recipe, SignedIn who) {
        masks.require(recipe, who.id());
        return recipe;
    }
}
