package app.yubble.bench;

import java.util.Arrays;

/** {@code depth}, {@code pairs}, {@code inspect}, {@code lens}, {@code clip}, {@code follow} and {@code keep} are scorecards, {@code preview} times previews; anything else is a pattern of JMH benchmarks, all when nothing is given. */
public final class Bench {
    private Bench() {}

    public static void main(String[] arguments) throws Exception {
        String[] rest = arguments.length == 0 ? arguments : Arrays.copyOfRange(arguments, 1, arguments.length);
        switch (arguments.length == 0 ? "" : arguments[0]) {
            case "depth" -> DepthCard.main(rest);
            case "clip" -> ClipCard.main(rest);
            case "follow" -> FollowCard.main(rest);
            case "inspect" -> InspectCard.main(rest);
            case "keep" -> KeepCard.main(rest);
            case "lens" -> LensCard.main(rest);
            case "pairs" -> PairsCard.main(rest);
            case "preview" -> PreviewTimes.main(rest);
            default -> org.openjdk.jmh.Main.main(arguments);
        }
    }
}
