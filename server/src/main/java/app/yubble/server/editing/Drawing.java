package app.yubble.server.editing;

import app.yubble.core.raster.Progress;
import app.yubble.core.raster.Size;
import app.yubble.server.memory.MemoryGate;
import app.yubble.server.memory.Turns;
import app.yubble.server.shoot.Shots;
import io.micrometer.core.instrument.Gauge;
import io.micrometer.core.instrument.MeterRegistry;
import java.util.UUID;
import java.util.function.Supplier;
import org.springframework.stereotype.Component;

/** Everything that is drawn for people who look at a shot. It goes round among them, so that nobody waits for one who asks for much. */
@Component
public class Drawing {
    /** One that is drawn uses all cores; the second fills what the first leaves free. */
    private static final int AT_ONCE = 2;
    /** A page asks for two at a time; this is room for some pages. */
    private static final int MOST_OF_ONE = 12;
    /** Each holds a thread of the server while it waits. */
    private static final int MOST_WAITING = 300;
    /** These take seconds, and much memory. */
    private static final int MOST_LARGE = 40;

    /** What the cache holds of one picture: its colours, its nearness and its glints. */
    private static final long MOST_PIXELS = 30_000_000;

    /** With so many people waiting a draft is still drawn at its size: each waits for a third of a second. */
    private static final int UNHURRIED = 4;
    /** Longer side; what is smaller shows nothing any more. */
    private static final int SMALLEST_DRAFT = 160;

    private final Turns turns = new Turns(AT_ONCE, MOST_OF_ONE, MOST_WAITING);
    private final Turns large = new Turns(AT_ONCE, MOST_OF_ONE, MOST_LARGE);
    private final MemoryGate gate;

    Drawing(MemoryGate gate, MeterRegistry meters) {
        this.gate = gate;
        Gauge.builder("yubble.drawing", turns, Turns::used)
                .tag("kind", "fitted")
                .register(meters);
        Gauge.builder("yubble.drawing", large, Turns::used).tag("kind", "large").register(meters);
    }

    /** The size at which a picture that would be as large is drawn: a very large one is drawn a little smaller. */
    static Size closest(Size wanted) {
        return wanted.longSide() > Shots.PROXY_SIDE && wanted.pixels() > MOST_PIXELS
                ? wanted.fitting((int) (wanted.longSide() * Math.sqrt((double) MOST_PIXELS / wanted.pixels())))
                : wanted;
    }

    /**
     * The longer side with which a draft is drawn while others wait: the more people do, the smaller, so that none of them waits for long. Sizes
     * are half a power of two apart, so that what is kept of a photo at each serves the next draft.
     */
    int hurried(int longSide) {
        int people = (longSide <= Shots.PROXY_SIDE ? turns : large).people();
        if (people <= UNHURRIED || longSide <= SMALLEST_DRAFT) {
            return longSide;
        }
        double steps = Math.ceil(Math.log((double) people / UNHURRIED) / Math.log(2));
        return Math.max(SMALLEST_DRAFT, (int) (longSide / Math.pow(2, steps / 2)));
    }

    /** Whether nobody waits for anything. */
    public boolean isIdle() {
        return turns.areFree() && large.areFree();
    }

    /** Whether anything is drawn or waited for beside one large thing. */
    boolean isForOthers() {
        return turns.used() + large.used() > 1;
    }

    /** Something as large as a preview of the whole at most. */
    <T> T inTurn(UUID person, Supplier<T> work) {
        return turns.in(person, Progress.NONE, work);
    }

    /**
     * Something at a size.
     *
     * @param wanted throws when it is no longer
     */
    <T> T inTurn(UUID person, Size size, Progress wanted, Supplier<T> work) {
        return size.longSide() <= Shots.PROXY_SIDE
                ? turns.in(person, wanted, work)
                : large.in(person, wanted, () -> gate.looking(size.pixels(), work));
    }
}
