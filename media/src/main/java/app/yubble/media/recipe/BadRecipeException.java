package app.yubble.media.recipe;

import java.util.List;

/** A recipe that cannot be used, with everything that is wrong with it. */
public final class BadRecipeException extends RuntimeException {
    private static final long serialVersionUID = 1L;

    private final transient List<String> faults;

    public BadRecipeException(List<String> faults) {
        super(String.join("; ", faults));
        this.faults = List.copyOf(faults);
    }

    public List<String> faults() {
        return faults;
    }
}
