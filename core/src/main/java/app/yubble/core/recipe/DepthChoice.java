package app.yubble.core.recipe;

/**
 * Where depth comes from.
 *
 * @param source estimated from the picture, or a file that was brought in
 * @param flip true when the map has white far
 */
public record DepthChoice(Source source, boolean flip) {
    /** The kinds of depth source. */
    public enum Source {
        ESTIMATED,
        FILE
    }

    public static final DepthChoice ESTIMATE = new DepthChoice(Source.ESTIMATED, false);
}
