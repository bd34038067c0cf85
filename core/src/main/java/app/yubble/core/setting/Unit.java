package app.yubble.core.setting;

/** What a number counts. */
public enum Unit {
    NONE(""),
    /** Of a whole, shown in per cent. */
    SHARE(""),
    /** 0 is infinitely far, 1 nearest. */
    NEARNESS(""),
    /** Of the longer side of the picture. */
    SIDE(""),
    PERCENT("%"),
    DEGREES("degrees"),
    FACTOR(""),
    MILLIMETRES("mm"),
    METRES("m"),
    SECONDS("s"),
    /** Doublings of light. */
    STOPS("stops");

    private final String sign;

    Unit(String sign) {
        this.sign = sign;
    }

    /** As it stands behind a number; often empty. */
    public String sign() {
        return sign;
    }
}
