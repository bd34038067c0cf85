package app.yubble.core.refocus;

/** A step whose result is made at once. A change of anything that it depends on may change all of it. */
interface WholeStage<T> extends Stage<T> {
    Class<T> type();

    /** A pure function of what it takes and reads. */
    T make(Results taken);
}
