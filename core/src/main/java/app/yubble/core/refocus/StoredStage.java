package app.yubble.core.refocus;

/** A step that takes so long that its result is worth more than the memory: it may be kept in a {@link StageStore}. */
interface StoredStage<T> extends WholeStage<T> {
    /** What it is made of. */
    Still still();

    Form<T> form();

    default boolean isStored() {
        return still().isStored();
    }
}
