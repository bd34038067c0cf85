package app.yubble.core.atmosphere;

import app.yubble.core.setting.Declared;

/**
 * Mist, and the tone of what is out of focus.
 *
 * @param front in front of the sharp band
 * @param behind behind it
 */
public record Atmosphere(Mist mist, Tone front, Tone behind) {
    /** Nothing is changed. */
    public static final Atmosphere CLEAR = Declared.usual(Atmosphere.class);

    public Atmosphere withMist(Mist value) {
        return new Atmosphere(value, front, behind);
    }

    public Atmosphere withFront(Tone value) {
        return new Atmosphere(mist, value, behind);
    }

    public Atmosphere withBehind(Tone value) {
        return new Atmosphere(mist, front, value);
    }

    /** Whether what is out of focus keeps its tone. */
    public boolean keepsTone() {
        return front.isPlain() && behind.isPlain();
    }
}
