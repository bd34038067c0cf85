package app.yubble.bench.fuzz;

/** What a fuzzer guided by coverage calls; the system property {@code yubble.parser} names the parser. */
public final class FuzzTarget {
    private static final Parser PARSER = Parser.valueOf(System.getProperty("yubble.parser", "PICTURE"));

    private FuzzTarget() {}

    /** Called by the fuzzer, by this name. */
    public static void fuzzerTestOneInput(byte[] input) {
        PARSER.takes(input);
    }
}
