package app.yubble.server.jobs;

/** What comes first: whatever somebody waits for before they can begin. */
public enum Urgency {
    /** Of a photo's depth, so that it can be used at once. */
    DRAFT,
    /** Going through a clip that came in. */
    READING,
    /** Better depth of a photo that has a draft. */
    BETTER,
    /** Depth and tracks of clips. */
    CLIP,
    DELIVERY,
    /** What may be wanted later. */
    AHEAD
}
