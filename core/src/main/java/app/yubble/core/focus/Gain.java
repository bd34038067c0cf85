package app.yubble.core.focus;

import app.yubble.core.setting.Declared;
import app.yubble.core.setting.Setting;
import app.yubble.core.setting.Unit;

/** How strongly each side of the sharp band is blurred. */
public record Gain(
        @Setting(
                called = "Blur in front",
                means = "factor on the blur in front of the band",
                most = 4,
                usual = 1,
                unit = Unit.FACTOR)
        double front,

        @Setting(
                called = "Blur behind",
                means = "factor on the blur behind the band",
                most = 4,
                usual = 1,
                unit = Unit.FACTOR)
        double behind) {
    private static final Declared<Gain> SETTINGS = Declared.of(Gain.class);

    public static final Gain EVEN = Declared.usual(Gain.class);

    public Gain {
        SETTINGS.check(front, behind);
    }
}
