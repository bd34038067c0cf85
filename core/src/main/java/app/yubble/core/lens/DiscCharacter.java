package app.yubble.core.lens;

/** Discs with a name, to start from. */
public enum DiscCharacter {
    EVEN("Even", "A modern lens wide open: round, even, hardly squeezed", new Disc(0, 0, 0, 0, 0, 0.15, 1)),
    CREAM("Cream", "Fades towards its rim, so that nothing behind has hard edges", new Disc(0, 0, 0, -0.85, 0, 0.1, 1)),
    OUTLINED("Outlined", "Bright rims: lamps stand as rings behind the subject", new Disc(0, 0, 0, 0.95, 0, 0.2, 1)),
    ROUNDED_NINE("Rounded nine", "Nine curved blades a stop below wide open", new Disc(9, 0.7, 10, 0.1, 0, 0.1, 1)),
    SIX_STRAIGHT(
            "Six straight", "Six straight blades, as in an older lens stopped down", new Disc(6, 0, 0, 0.2, 0, 0, 1)),
    FIVE_STRAIGHT("Five straight", "Five straight blades with plain corners", new Disc(5, 0.05, 0, 0.1, 0, 0, 1)),
    BARREL(
            "Barrel",
            "A deep barrel cuts the discs at the corners, which seem to turn around the middle",
            new Disc(0, 0, 0, 0.35, 0, 0.95, 1)),
    MIRROR("Mirror", "A mirror lens: every point becomes a ring", new Disc(0, 0, 0, 0.15, 0.5, 0.1, 1)),
    TALL("Tall", "A wide-screen lens: upright ovals", new Disc(0, 0, 0, 0.15, 0, 0.35, 1.7)),
    OLD_PORTRAIT(
            "Old portrait",
            "Eleven curved blades, slightly outlined, squeezed towards the corners",
            new Disc(11, 0.8, 0, 0.45, 0, 0.6, 1));

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
