package app.yubble.server.editing;

import app.yubble.core.recipe.Recipe;
import app.yubble.media.picture.PictureReader;
import app.yubble.server.account.SignedIn;
import app.yubble.server.shoot.MaskFiles;
import app.yubble.server.shoot.Shot;
import app.yubble.server.shoot.ShotMaterial;
import app.yubble.server.shoot.Shots;
import app.yubble.server.storage.FileStore;
import org.springframework.stereotype.Component;

/** What a request works with: a shot's material, and a recipe that may use only what its sender brought in. */
@Component
class ShotRecipes {
    private final Shots shots;
    private final MaskFiles masks;
    private final FileStore files;
    private final PictureReader reader;

    ShotRecipes(Shots shots, MaskFiles masks, FileStore files, PictureReader reader) {
        this.shots = shots;
        this.masks = masks;
        this.files = files;
        this.reader = reader;
    }

    ShotMaterial material(Shot shot) {
        return new ShotMaterial(shot, shots.depthMaps(shot.id()), files, reader);
    }

    /** The recipe, when its sender may use all that it names. */
    Recipe allowed(Recipe recipe, SignedIn who) {
        masks.require(recipe, who.id());
        return recipe;
    }
}
