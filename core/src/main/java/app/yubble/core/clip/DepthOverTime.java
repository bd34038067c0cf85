package app.yubble.core.clip;

import app.yubble.core.depth.DepthEdges;
import app.yubble.core.depth.DepthEstimate;
import app.yubble.core.depth.DepthEstimator;
import app.yubble.core.raster.Bands;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Progress;
import app.yubble.core.raster.Resample;
import app.yubble.core.raster.Size;
import app.yubble.core.subject.Quality;
import app.yubble.core.subject.Subject;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.OptionalInt;

/**
 * Depth of all frames of a clip, steady over time.
 *
 * <p>What goes in: pictures in their order, where the cuts are, an estimator for one picture and a finder of flow. What comes out:
 * a small map and matte for each frame; their edges are put on each frame's picture afterwards, as for photos. From one cut to the
 * next:
 *
 * <ol>
 *   <li>Every few frames, the <em>keys</em>, are estimated alone. Their edges are put on the picture's: a soft map carries a seam of
 *       what stands in front over what is behind it, which would be left there when the thing has gone on.
 *   <li>All keys are brought to one scale ({@link OneScale}), in which what stands still gets nearer as the camera does
 *       ({@link Approach}).
 *   <li>Each becomes the mean of the keys before and after it along motion ({@link Settling}), and its matte likewise.
 *   <li>Frames between two keys get both, carried along their own flow, the nearer and the better agreeing one more.
 * </ol>
 *
 * <p>Networks run at the size of a draft also in the best quality, in which every frame is a key: the finer matte of photos would take
 * three seconds a frame.
 *
 * <p>Memory holds a few small planes whatever the clip's length; the rest lies on shelves. What lies there already, of a run that was
 * broken off, is not estimated again.
 */
public final class DepthOverTime {
    /** Longer side of maps, mattes and flows: about as much as a draft's matte has. */
    public static final int SIDE = 480;

    /** Seconds between keys of a draft: with five frames at 24 a second it makes five frames a second on two cores ({@code bench clip}). */
    private static final double KEY_SECONDS = 0.21;
    /** Longest mean in seconds. By error and flicker of the demo clip ({@code bench clip}). */
    private static final double MEAN_SECONDS = 2.4;
    /** Of a key's scale: less is a mistake. */
    private static final double LEAST_FACTOR = 0.1;
    /** About the share of the work that estimating keys is. */
    private static final double ESTIMATING = 0.85;
    /** Both ways and the halves of a matte: a place that nothing agrees on still gets something. */
    private static final float LEAST_WEIGHT = 1e-3f;

    /** What a clip is, as far as depth needs it. */
    public record Shot(Size size, int frames, double rate, List<Integer> cuts) {}

    /** Shelves by name; a shelf keeps what is put on it until the whole is done. */
    public interface Shelves {
        PlaneStore maps(String name, Size size);

        PlaneStore mattes(String name, Size size);
    }

    /** Takes depth as it comes. */
    public interface Sink {
        /**
         * A frame that was estimated alone; it comes again.
         *
         * @param frame from 0
         */
        void first(int frame, DepthEstimate estimate);

        /** A frame that somebody looks at and that should be estimated before those whose turn it is; asked before each of them. */
        default OptionalInt wanted() {
            return OptionalInt.empty();
        }

        /** A frame's own depth, in order. */
        void settled(int frame, DepthEstimate estimate);
    }

    private final DepthEstimator estimator;
    private final FlowFinder flows;
    private final Quality quality;

    public DepthOverTime(DepthEstimator estimator, FlowFinder flows, Quality quality) {
        this.estimator = estimator;
        this.flows = flows;
        this.quality = quality;
    }

    /** How many frames from one key to the next: in the best quality every frame is one. */
    public int keyDistance(double rate) {
        return quality == Quality.BEST ? 1 : (int) Math.max(1, Math.round(KEY_SECONDS * rate));
    }

    /** Estimates all of it. */
    public void run(Shot shot, FrameSource frames, Shelves shelves, Sink sink, Progress progress) {
        List<Integer> ends = new ArrayList<>(shot.cuts());
        ends.add(shot.frames());
        int from = 0;
        for (int to : ends) {
            new Scene(shot, shelves, from, to)
                    .run(frames, sink, progress.part((double) from / shot.frames(), (double) to / shot.frames()));
            from = to;
        }
        progress.at(1);
    }

    /** The frames from one cut to the next. */
    private final class Scene {
        final int from;
        final int to;
        final int lastFrame;
        final Size size;
        final List<Integer> keys = new ArrayList<>();
        final double mostKeys;
        final PlaneStore light;
        final PlaneStore maps;
        final PlaneStore mattes;
        final PlaneStore means;
        final PlaneStore counts;
        final PlaneStore matteMeans;
        final PlaneStore matteCounts;
        final OneScale scales = new OneScale();
        /** What the camera goes nearer, from each key to the next. */
        final List<Approach> walks = new ArrayList<>();

        final int walkFrames;
        double confidence;

        Scene(Shot shot, Shelves shelves, int from, int to) {
            this.from = from;
            this.to = to;
            lastFrame = shot.frames() - 1;
            size = shot.size().fitting(SIDE);
            int every = keyDistance(shot.rate());
            for (int key = from; key < to - 1; key += every) {
                keys.add(key);
            }
            keys.add(to - 1);
            walkFrames = (int) Math.max(1, Math.round(KEY_SECONDS * shot.rate()));
            mostKeys = Math.max(2, MEAN_SECONDS * shot.rate() / every / 2);
            light = shelves.mattes("light", size);
            maps = shelves.maps("maps", size);
            mattes = shelves.mattes("mattes", size);
            means = shelves.maps("means", size);
            counts = shelves.maps("counts", size);
            matteMeans = shelves.mattes("matte-means", size);
            matteCounts = shelves.maps("matte-counts", size);
        }

        void run(FrameSource frames, Sink sink, Progress progress) {
            estimate(frames, sink, progress.part(0, ESTIMATING));
            List<OneScale.Scale> solved = withinUnit(scales.solved());
            settle(solved);
            join(solved, sink, progress.part(ESTIMATING, 1));
        }

        void estimate(FrameSource frames, Sink sink, Progress progress) {
            int[] next = {0};
            frames.each(from, to, (frame, picture) -> {
                progress.at((double) (frame - from) / (to - from));
                Picture small = Resample.toSize(picture, size);
                light.put(frame, small.lightness());
                if (frame == keys.get(next[0])) {
                    sink.wanted().ifPresent(wanted -> estimateAhead(wanted, frames, sink));
                    estimate(frame, picture, small, sink);
                    confidence += Subject.of(mattes.get(frame)).confidence() / keys.size();
                    if (next[0] > 0) {
                        pair(keys.get(next[0] - 1), frame);
                    }
                    next[0]++;
                }
            });
        }

        private void estimate(int frame, Picture picture, Picture small, Sink sink) {
            if (!maps.has(frame)) {
                DepthEstimate found = estimator.estimate(picture, Quality.DRAFT, Progress.NONE);
                Subject subject = found.subject();
                Subject ours = Subject.of(subject == null ? new Plane(size) : Resample.toSize(subject.matte(), size));
                mattes.put(frame, ours.matte());
                DepthEstimate coarse = new DepthEstimate(Resample.toSize(found.nearness(), size), ours);
                maps.put(frame, DepthEdges.follow(coarse, small, 1, DepthEdges.Detail.QUICK));
                sink.first(frame, found);
            }
        }

        /** The key next to a frame, which stands for it until all is settled; or the frame, when it is of another scene. */
        private void estimateAhead(int wanted, FrameSource frames, Sink sink) {
            int near = keys.stream()
                    .min(Comparator.comparingInt(key -> Math.abs(key - wanted)))
                    .orElse(wanted);
            int frame = wanted >= from && wanted < to ? near : Math.min(wanted, lastFrame);
            frames.each(
                    frame,
                    frame + 1,
                    (number, picture) -> estimate(number, picture, Resample.toSize(picture, size), sink));
        }

        private void pair(int before, int now) {
            Way there = way(light.get(before), light.get(now));
            Approach walked = walked(before, now, there);
            walks.add(walked);
            Plane moved = walked.appliedTo(maps.get(before));
            scales.add(OneScale.Pair.of(moved, there.flow.fetch(maps.get(now)), there.agreement));
        }

        /** From one key to the next; measured over a longer way when keys lie close, for a step of a pixel says little. */
        private Approach walked(int before, int now, Way there) {
            int at = keys.indexOf(before);
            while (at > 0 && keys.get(at) > now - walkFrames) {
                at--;
            }
            int first = keys.get(at);
            Way longer = first == before ? there : way(light.get(first), light.get(now));
            return Approach.of(longer.flow, maps.get(first), longer.agreement)
                    .over((double) (now - before) / (now - first));
        }

        /** Between keys on their solved scale. */
        private Approach walk(int to, List<OneScale.Scale> solved) {
            return walks.get(to - 1)
                    .over(1 / Math.max(LEAST_FACTOR, solved.get(to - 1).factor()));
        }

        /** All scales with the whole scene between 0 and 1: the ends of the keys, less the odd pixel. */
        private List<OneScale.Scale> withinUnit(List<OneScale.Scale> solved) {
            double low = Double.POSITIVE_INFINITY;
            double high = Double.NEGATIVE_INFINITY;
            for (int i = 0; i < keys.size(); i++) {
                Plane.Range range = maps.get(keys.get(i)).range();
                low = Math.min(
                        low,
                        solved.get(i).factor() * range.low() + solved.get(i).offset());
                high = Math.max(
                        high,
                        solved.get(i).factor() * range.high() + solved.get(i).offset());
            }
            double span = Math.max(1e-6, high - low);
            double lowest = low;
            return solved.stream()
                    .map(each -> new OneScale.Scale(each.factor() / span, (each.offset() - lowest) / span))
                    .toList();
        }

        /** The means over the past, on the shelves. */
        void settle(List<OneScale.Scale> solved) {
            Settling depth = new Settling(mostKeys);
            Settling matte = new Settling(mostKeys);
            for (int i = 0; i < keys.size(); i++) {
                int key = keys.get(i);
                int before = keys.get(Math.max(0, i - 1));
                Way toLast = way(key, before);
                Approach walked = i > 0 ? walk(i, solved) : Approach.NONE;
                Settling.State state =
                        depth.add(solved.get(i).of(maps.get(key)), toLast.flow, toLast.agreement, walked);
                means.put(key, state.mean());
                counts.put(key, state.count());
                Settling.State cover = matte.add(mattes.get(key), toLast.flow, toLast.agreement, Approach.NONE);
                matteMeans.put(key, cover.mean());
                matteCounts.put(key, cover.count());
            }
        }

        private Way way(int from, int other) {
            return from == other
                    ? new Way(Flow.none(size), Plane.filled(size, 1))
                    : way(light.get(from), light.get(other));
        }

        private Way way(Plane from, Plane other) {
            Flow[] both = new Flow[2];
            Bands.ofPieces(2, back -> both[back] = back == 0 ? flows.between(from, other) : flows.between(other, from));
            return new Way(both[0], both[0].agreement(both[1]));
        }

        /** Backwards over the keys, joined with the past; then forwards over all frames. */
        void join(List<OneScale.Scale> solved, Sink sink, Progress progress) {
            Settling depth = new Settling(mostKeys);
            Settling matte = new Settling(mostKeys);
            for (int i = keys.size() - 1; i >= 0; i--) {
                progress.at(0.4 * (keys.size() - i) / keys.size());
                int key = keys.get(i);
                int after = keys.get(Math.min(keys.size() - 1, i + 1));
                Way toLast = way(key, after);
                Plane own = solved.get(i).of(maps.get(key));
                Approach walked = i + 1 < keys.size() ? walk(i + 1, solved).over(-1) : Approach.NONE;
                Settling.State future = depth.add(own, toLast.flow, toLast.agreement, walked);
                means.put(key, Settling.joined(new Settling.State(means.get(key), counts.get(key)), future, own));
                Plane cover = mattes.get(key);
                Settling.State futureMatte = matte.add(cover, toLast.flow, toLast.agreement, Approach.NONE);
                matteMeans.put(
                        key,
                        Settling.joined(
                                new Settling.State(matteMeans.get(key), matteCounts.get(key)), futureMatte, cover));
            }
            for (int i = 0; i < keys.size(); i++) {
                progress.at(0.4 + 0.6 * i / keys.size());
                int key = keys.get(i);
                sink.settled(key, depthOf(means.get(key), matteMeans.get(key)));
                int next = i + 1 < keys.size() ? keys.get(i + 1) : to;
                if (next > key + 1) {
                    DepthEstimate[] between = carried(key, next, walk(i + 1, solved));
                    for (int k = 0; k < between.length; k++) {
                        sink.settled(key + 1 + k, between[k]);
                    }
                }
            }
        }

        private DepthEstimate depthOf(Plane nearness, Plane matte) {
            for (int i = 0; i < nearness.samples().length; i++) {
                nearness.samples()[i] = Math.max(0, Math.min(1, nearness.samples()[i]));
            }
            return new DepthEstimate(nearness, new Subject(matte, confidence));
        }

        /** The frames between two keys, some at a time on all cores. */
        private DepthEstimate[] carried(int before, int after, Approach walked) {
            Known past = new Known(before);
            Known future = new Known(after);
            DepthEstimate[] out = new DepthEstimate[after - before - 1];
            Plane[] lights = new Plane[out.length];
            for (int k = 0; k < out.length; k++) {
                lights[k] = light.get(before + 1 + k);
            }
            Bands.ofPieces(out.length, k -> {
                float late = (float) (k + 1) / (after - before);
                Way toPast = way(lights[k], past.light);
                Way toFuture = way(lights[k], future.light);
                Plane share = toPast.shareAgainst(toFuture, late);
                Plane nearness = mixed(
                        walked.over(late).appliedTo(toPast.flow.fetch(past.mean)),
                        walked.over(late - 1).appliedTo(toFuture.flow.fetch(future.mean)),
                        share);
                out[k] = depthOf(
                        nearness, mixed(toPast.flow.fetch(past.matte), toFuture.flow.fetch(future.matte), share));
            });
            return out;
        }

        /** What is known of a key. */
        private final class Known {
            final Plane light;
            final Plane mean;
            final Plane matte;

            Known(int key) {
                light = Scene.this.light.get(key);
                mean = means.get(key);
                matte = matteMeans.get(key);
            }
        }

        private Plane mixed(Plane past, Plane future, Plane share) {
            Plane out = new Plane(size);
            for (int i = 0; i < out.samples().length; i++) {
                float a = past.samples()[i];
                out.samples()[i] = a + share.samples()[i] * (future.samples()[i] - a);
            }
            return out;
        }
    }

    /** From one frame to another, and how far flow agrees with that back. */
    private record Way(Flow flow, Plane agreement) {
        /** How much another way counts against this one, in [0,1]. */
        Plane shareAgainst(Way other, float late) {
            Plane out = new Plane(agreement.size());
            for (int i = 0; i < out.samples().length; i++) {
                float own = (1 - late) * (agreement.samples()[i] + LEAST_WEIGHT);
                float others = late * (other.agreement.samples()[i] + LEAST_WEIGHT);
                out.samples()[i] = others / (own + others);
            }
            return out;
        }
    }
}
