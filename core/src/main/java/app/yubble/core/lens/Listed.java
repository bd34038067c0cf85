package app.yubble.core.lens;

/** Entries of a band ordered by step of radius, row by row within a step. */
final class Listed {
    /** Where the entries of each step start. */
    final int[] starts;
    /** Row in the upper 16 bits, column in the lower; for pieces their number. */
    int[] places = new int[0];
    /** How far each is on the way to the next step, in [0,1]. */
    float[] toNext = new float[0];

    Listed(int steps) {
        starts = new int[steps + 1];
    }

    /** Turns counts of step j in place j + 1 into starts; the answer is where each step's next entry goes. */
    int[] opened() {
        for (int j = 1; j < starts.length; j++) {
            starts[j] += starts[j - 1];
        }
        places = new int[starts[starts.length - 1]];
        toNext = new float[places.length];
        return starts.clone();
    }

    boolean has(int step) {
        return starts[step] < starts[step + 1];
    }
}
