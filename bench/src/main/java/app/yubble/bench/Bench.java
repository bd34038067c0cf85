package app.yubble.bench;

import java.util.Arrays;

/** {@code depth} is the depth scorecard; anything else is a pattern of JMH benchmarks, all of them when nothing is given. */
public final class Bench {
    private Bench() {}

    public static void main(String[] arguments) throws Exception {
        if (arguments.length > 0 && arguments[0].equals("depth")) {
            DepthCard.main(Arrays.copyOfRange(arguments, 1, arguments.length));
        } else {
            org.openjdk.jmh.Main.main(arguments);
        }
    }
}
