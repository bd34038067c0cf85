package app.yubble.server.node;

/** What a node does. */
public enum Role {
    ALL,
    /** Pages, edits and previews. */
    WEB,
    /** Depth, deliveries and what is made ahead; no page reaches it. */
    WORK
}
