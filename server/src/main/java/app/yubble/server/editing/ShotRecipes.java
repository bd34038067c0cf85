package app.yubble.server.editing;

import app.yubble.core.recipe.Recipe;
import app.yubble.server.account.SignedIn;
import app.yubble.server.mask.MaskFiles;
import app.yubble.server.shoot.Materials;
import app.yubble.server.shoot.Shot;
import app.yubble.server.shoot.ShotMaterial;
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

    /** The recipe, when its sender may use all that it names. */
    Recipe allowed(Recipe recipe, SignedIn who) {
        masks.require(recipe, who.id());
        return recipe;
    }
}
