package app.yubble.core.ladder;

import java.util.List;

/**
 * How much two places move together, by what {@link Footing#read} says of them; fitted on photos with ranked points ({@code bench pairs}). The first
 * four say how far apart two are that have little to do with each other.
 *
 * @param place in shares of the longer side
 * @param nearness of the map's
 * @param colour of the roots of linear light
 * @param kin over the distance of two places drawn at random
 * @param anywhere how much what is alike moves together however far apart it lies
 * @param together how much all moves together, against what moves alone
 * @param slope how much all of the picture leans to one side, against what moves alone
 */
record Metric(
        double place, double nearness, double colour, double kin, double anywhere, double together, double slope) {
    private static final Metric WITH_KIN = new Metric(0.45, 0.24, 0.6, 0.5, 0.3, 0.3, 0.1);
    /** Colours have to tell things apart. */
    private static final Metric WITHOUT_KIN = new Metric(0.35, 0.24, 0.23, Double.POSITIVE_INFINITY, 0.5, 0.4, 0.12);

    /** For places of all of these moments: without kin where one does not know it. */
    static Metric of(List<Footing> footings) {
        return footings.stream().allMatch(Footing::knowsKin) ? WITH_KIN : WITHOUT_KIN;
    }

    double alike(float[] a, float[] b) {
        double away = squares(a, b, 0, Footing.NEARNESS) / (place * place);
        double unlike = squares(a, b, Footing.NEARNESS, Footing.COLOUR) / (nearness * nearness)
                + squares(a, b, Footing.COLOUR, Footing.KIN) / (colour * colour)
                + squares(a, b, Footing.KIN, Footing.PARTS) / (kin * kin);
        double near = anywhere + (1 - anywhere) * Math.exp(-0.5 * away);
        return near * Math.exp(-0.5 * unlike)
                + slope * ((a[0] - 0.5) * (b[0] - 0.5) + (a[1] - 0.5) * (b[1] - 0.5))
                + together;
    }

    private static double squares(float[] a, float[] b, int from, int to) {
        double sum = 0;
        for (int k = from; k < to; k++) {
            double off = a[k] - b[k];
            sum += off * off;
        }
        return sum;
    }
}
