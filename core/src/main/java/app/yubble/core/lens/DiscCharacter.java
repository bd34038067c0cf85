package app.yubble.core.lens;

/** Discs with a name, to start from. */
public enum DiscCharacter {
    EVEN("Even", "A modern lens wide open: round, even, hardly squeezed", Disc.ROUND.withSqueeze(0.15)),
    CREAM(
            "Cream",
            "Fades towards its rim, so that nothing behind has hard edges",
            Disc.ROUND.withRim(-0.85).withSqueeze(0.1)),
    OUTLINED(
            "Outlined",
            "Bright rims: lamps stand as rings behind the subject",
            Disc.ROUND.withRim(0.95).withSqueeze(0.2)),
    ROUNDED_NINE(
            "Rounded nine",
            "Nine curved blades a stop below wide open",
            Disc.bladed(9, 0.7, 10).withRim(0.1).withSqueeze(0.1)),
    SIX_STRAIGHT(
            "Six straight",
            "Six straight blades, as in an older lens stopped down",
            Disc.bladed(6, 0, 0).withRim(0.2)),
    FIVE_STRAIGHT(
            "Five straight",
            "Five straight blades with plain corners",
            Disc.bladed(5, 0.05, 0).withRim(0.1)),
    BARREL(
            "Barrel",
            "A deep barrel cuts the discs at the corners, which seem to turn around the middle",
            Disc.ROUND.withRim(0.35).withSqueeze(0.95)),
    MIRROR(
            "Mirror",
            "A mirror lens: every point becomes a ring",
            Disc.ROUND.withRim(0.15).withHollow(0.5).withSqueeze(0.1)),
    TALL(
            "Tall",
            "A wide-screen lens: upright ovals",
            Disc.ROUND.withRim(0.15).withSqueeze(0.35).withStretch(1.7)),
    OLD_PORTRAIT(
            "Old portrait",
            "Eleven curved blades, slightly outlined, squeezed towards the corners",
            Disc.bladed(11, 0.8, 0).withRim(0.45).withSqueeze(0.6));

    private final String title;
    private final String about;
    private final Disc disc;

    DiscCharacter(String title, String about, Disc disc) {
        this.title = title;
        this.about = about;
        this.disc = disc;
    }

    public String title() {
        return title;
    }

    public String about() {
        return about;
    }

    public Disc disc() {
        return disc;
    }
}
