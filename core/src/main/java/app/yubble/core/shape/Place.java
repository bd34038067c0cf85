package app.yubble.core.shape;

import app.yubble.core.clip.Mark;
import app.yubble.core.setting.Declared;
import app.yubble.core.setting.Setting;
import app.yubble.core.setting.Unit;

/** Where a blur shape lies, and how large it is. It may lie outside the picture. */
public record Place(
        @Setting(
                called = "Across",
                means = "its middle, as a share of the picture's width, from the left",
                least = LEAST,
                most = MOST,
                usual = 0.5,
                unit = Unit.SHARE)
        double x,

        @Setting(
                called = "Down",
                means = "its middle, as a share of the picture's height, from the top",
                least = LEAST,
                most = MOST,
                usual = 0.5,
                unit = Unit.SHARE)
        double y,

        @Setting(
                called = "Width",
                means = "from side to side before it is turned; a line has none",
                least = SMALLEST,
                most = LARGEST,
                usual = 0.3,
                unit = Unit.SIDE)
        double width,

        @Setting(
                called = "Height",
                means = "from top to bottom before it is turned; of a line how thick it is",
                least = SMALLEST,
                most = LARGEST,
                usual = 0.2,
                unit = Unit.SIDE)
        double height,

        @Setting(
                called = "Turn",
                means = "how far it is turned, clockwise",
                least = -HALF_TURN,
                most = HALF_TURN,
                unit = Unit.DEGREES)
        double turn) {
    private static final Declared<Place> SETTINGS = Declared.of(Place.class);
    /** In pictures. */
    private static final double LEAST = -2;
    /** In pictures. */
    private static final double MOST = 3;
    /** A tenth of a pixel of a large photo. */
    private static final double SMALLEST = 1e-5;
    /** In longer sides: over all of the picture from wherever it stands. */
    private static final double LARGEST = 4;
    /** Degrees after which every shape looks as before. */
    private static final double HALF_TURN = 180;

    public static final Place USUAL = Declared.usual(Place.class);

    public Place {
        SETTINGS.check(x, y, width, height, turn);
    }

    /** The same elsewhere, as far as shapes may go. */
    public Place moved(double across, double down) {
        return new Place(within(x + across), within(y + down), width, height, turn);
    }

    /** Sizes grow by shares, and it turns the shorter way. */
    static Place between(Place a, Place b, double share) {
        double way = Math.IEEEremainder(b.turn - a.turn, HALF_TURN);
        return new Place(
                Mark.mixed(a.x, b.x, share),
                Mark.mixed(a.y, b.y, share),
                grown(a.width, b.width, share),
                grown(a.height, b.height, share),
                share == 0 ? a.turn : Math.IEEEremainder(a.turn + share * way, HALF_TURN));
    }

    private static double grown(double a, double b, double share) {
        return share == 0 ? a : share == 1 ? b : a * Math.pow(b / a, share);
    }

    private static double within(double value) {
        return Math.max(LEAST, Math.min(MOST, value));
    }
}
