package app.yubble.core.clip;

import app.yubble.core.raster.Plane;

/** Planes of one size by number, kept where there is room for many. */
public interface PlaneStore {
    void put(int number, Plane plane);

    /** @throws IllegalArgumentException when there is none of that number */
    Plane get(int number);

    boolean has(int number);
}
