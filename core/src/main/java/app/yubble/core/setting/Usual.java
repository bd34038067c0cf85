package app.yubble.core.setting;

/** A choice that decides what is usual for another setting. */
public interface Usual {
    double usual();
}
