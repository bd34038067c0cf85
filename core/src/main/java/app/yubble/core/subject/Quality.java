package app.yubble.core.subject;

/** How much time an estimate may take. */
public enum Quality {
    /** Networks at 512 pixels only. */
    DRAFT,
    /** The subject's matte at 1024 pixels as well. */
    BEST
}
