package app.yubble.server.editing;

import java.util.UUID;

/** A step of a history without its recipe. */
interface StepName {
    UUID getVersionId();

    int getPosition();

    String getName();
}
