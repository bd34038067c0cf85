package app.yubble.bench;

import app.yubble.core.depth.DepthEdges;
import app.yubble.core.depth.DepthEstimate;
import app.yubble.core.focus.DefocusField;
import app.yubble.core.focus.Gain;
import app.yubble.core.focus.SharpBand;
import app.yubble.core.lens.Disc;
import app.yubble.core.lens.Glints;
import app.yubble.core.lens.LensRender;
import app.yubble.core.raster.Picture;
import app.yubble.core.raster.Plane;
import app.yubble.core.raster.Progress;
import app.yubble.core.raster.Resample;
import app.yubble.core.raster.Size;
import app.yubble.media.depthfile.DepthFileReader;
import app.yubble.media.picture.PictureReader;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.concurrent.TimeUnit;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Fork;
import org.openjdk.jmh.annotations.Measurement;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Param;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.Setup;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.Warmup;

/** The lens at preview size and larger, on a demo photo with exact depth. */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.MILLISECONDS)
@Fork(1)
@Warmup(iterations = 3, time = 2)
@Measurement(iterations = 4, time = 2)
public class LensBenchmark {
    /** Longer side in pixels; 1100 is the Bench at 1280 x 800. */
    @Param({"1100", "2400"})
    public int side;

    /** Radius per unit of nearness, as a share of the longer side. */
    @Param({"0.06", "0.2"})
    public double strength;

    @Param({"crossing", "dusk"})
    public String scene = "crossing";

    private Picture picture;
    private Plane field;

    /** Made by the benchmark harness. */
    public LensBenchmark() {
        Size size = new Size(1, 1);
        picture = Picture.blank(size);
        field = new Plane(size);
    }

    @Setup
    public void load() throws IOException {
        Path demo = Path.of(System.getProperty("demo", "demo"));
        Picture full = PictureReader.DEFAULT
                .read(demo.resolve("photos/" + scene + ".jpg"))
                .picture();
        byte[] map = Files.readAllBytes(demo.resolve("truth/" + scene + "-depth.png"));
        picture = Resample.toSize(full, full.size().fitting(side));
        Plane nearness = DepthEdges.follow(
                DepthEstimate.of(new DepthFileReader(PictureReader.DEFAULT).read(map, full.size())), picture, 0);
        field = DefocusField.of(nearness, SharpBand.around(0.2, 0.06, 0.04), Gain.EVEN, strength * side);
    }

    @Benchmark
    public Picture lens() {
        return LensRender.render(picture, field, Disc.ROUND, Glints.of(0.25), Progress.NONE);
    }
}
