package app.yubble.cli;

import app.yubble.core.ladder.Rung;
import app.yubble.core.raster.Size;
import app.yubble.core.refocus.Still;
import app.yubble.media.clip.ClipSheet;
import app.yubble.media.clip.DepthReel;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.IntToDoubleFunction;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** A ladder as it is written on the command line: {@code X,Y;X,Y} near to far, {@code =} between what stands equally far. */
final class Rungs {
    private static final Pattern RUNG = Pattern.compile(
            "(?<x>\\d+(\\.\\d+)?),(?<y>\\d+(\\.\\d+)?)(:(?<metres>\\d+(\\.\\d+)?))?(@(?<frame>\\d{1,9}))?");

    /** Microseconds of a second. */
    private static final double MICROS = 1e6;

    private Rungs() {}

    /**
     * Of a picture of the size.
     *
     * @param seconds the time of a frame, from 1
     */
    static List<Rung> parse(String text, Size size, IntToDoubleFunction seconds) {
        List<Rung> rungs = new ArrayList<>();
        for (String level : text.split(";", -1)) {
            String[] tied = level.split("=", -1);
            for (int i = 0; i < tied.length; i++) {
                rungs.add(rung(tied[i].strip(), i > 0, size, seconds));
            }
        }
        try {
            return Rung.ladder(rungs);
        } catch (IllegalArgumentException fault) {
            throw new WrongUseException("--ladder: " + fault.getMessage());
        }
    }

    /** Of a clip; rungs without a frame stand on the first that is wanted. */
    static List<Rung> ofClip(String text, ClipSheet sheet, int first) {
        return parse(text, sheet.info().size(), number -> {
            int frame = ClipCommand.frame(number == 0 ? null : number, first + 1, "--ladder", sheet);
            return sheet.micros(frame - 1) / MICROS;
        });
    }

    /** The frames of a clip on which rungs stand, by their times. */
    static Map<Double, Still> moments(List<Rung> ladder, ClipWork work, DepthReel reel) {
        Map<Double, Still> out = new HashMap<>();
        for (Rung rung : ladder) {
            out.computeIfAbsent(rung.at(), at -> {
                int frame = work.sheet().frameAt(Math.round(at * MICROS));
                return ClipWork.still(work.full().frame(frame), reel, frame, Map.of(), Kept.NOTHING, Map.of());
            });
        }
        return out;
    }

    /** The time of a frame of a photo, which has none. */
    static double ofPhoto(int frame) {
        if (frame > 0) {
            throw new WrongUseException("--ladder: a photo has no frame " + frame);
        }
        return 0;
    }

    private static Rung rung(String text, boolean tied, Size size, IntToDoubleFunction seconds) {
        Matcher parts = RUNG.matcher(text);
        if (!parts.matches()) {
            throw new WrongUseException("--ladder: \"" + text + "\" must be X,Y in pixels, with :METRES where they are"
                    + " known, and @FRAME in a clip");
        }
        double x = Double.parseDouble(parts.group("x")) / size.width();
        double y = Double.parseDouble(parts.group("y")) / size.height();
        if (x > 1 || y > 1) {
            throw new WrongUseException("--ladder: " + text + " is outside of the picture of " + size);
        }
        String metres = parts.group("metres");
        String frame = parts.group("frame");
        try {
            return new Rung(
                    x,
                    y,
                    tied,
                    metres == null ? 0 : Double.parseDouble(metres),
                    seconds.applyAsDouble(frame == null ? 0 : Integer.parseInt(frame)));
        } catch (IllegalArgumentException fault) {
            throw new WrongUseException("--ladder: " + fault.getMessage());
        }
    }
}
