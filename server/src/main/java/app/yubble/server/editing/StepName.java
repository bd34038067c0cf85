package app.yubble.server.editing;

/** A step of a history without its recipe. */
interface StepName {
    int getPosition();

    String getName();
}
