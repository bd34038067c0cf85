package app.yubble.vision;

import ai.onnxruntime.OnnxJavaType;
import ai.onnxruntime.OnnxTensor;
import ai.onnxruntime.OnnxValue;
import ai.onnxruntime.OrtEnvironment;
import ai.onnxruntime.OrtException;
import ai.onnxruntime.OrtLoggingLevel;
import ai.onnxruntime.OrtSession;
import ai.onnxruntime.TensorInfo;
import app.yubble.core.raster.Progress;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.FloatBuffer;
import java.nio.file.Path;
import java.time.Duration;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.CancellationException;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import java.util.concurrent.locks.ReentrantLock;

/**
 * One ONNX file, loaded on first use and kept.
 *
 * <p>Only one network runs at a time: a run uses all cores, and the memory of two would add up. While it runs, progress is
 * told a few times a second from the time that the last run took, and a run that is cancelled stops at the next node.
 * The arena of ONNX Runtime is off, because it keeps the largest run's memory for ever: with it the process held
 * 1.1 GB more after the 1024 matte.
 */
public final class Network {
    private static final ReentrantLock ONE_AT_A_TIME = new ReentrantLock(true);
    private static final ExecutorService RUNNER = Executors.newCachedThreadPool(work -> {
        Thread thread = new Thread(work, "network");
        thread.setDaemon(true);
        return thread;
    });
    private static final long TICK_MILLIS = 100;

    /** Those that are loaded. */
    private static final Set<Network> LOADED = ConcurrentHashMap.newKeySet();

    private final String name;
    private final Opening opening;
    private volatile long lastUsed;
    private volatile double lastSeconds;
    private volatile @org.jspecify.annotations.Nullable OrtSession session;

    /** Makes a session. */
    private interface Opening {
        OrtSession open(OrtEnvironment environment, OrtSession.SessionOptions options) throws OrtException;
    }

    private Network(String name, double expectedSeconds, Opening opening) {
        this.name = name;
        this.opening = opening;
        this.lastSeconds = expectedSeconds;
    }

    /** @param expectedSeconds the time of a first run, for progress only */
    public static Network ofFile(Path file, double expectedSeconds) {
        return new Network(
                file.getFileName().toString(),
                expectedSeconds,
                (environment, options) -> environment.createSession(file.toString(), options));
    }

    /** A network that ships with the classes, beside {@code owner}. */
    static Network ofResource(Class<?> owner, String name, double expectedSeconds) {
        return new Network(name, expectedSeconds, (environment, options) -> {
            try (InputStream in = owner.getResourceAsStream(name)) {
                return environment.createSession(
                        java.util.Objects.requireNonNull(in, name).readAllBytes(), options);
            } catch (IOException fault) {
                throw new UncheckedIOException(name + " cannot be read", fault);
            }
        });
    }

    /** Shape and samples of a tensor, row-major. */
    public record Tensor(long[] shape, FloatBuffer samples) {
        /** Side of a plane that is the tensor's last two dimensions. */
        int height() {
            return (int) shape[shape.length - 2];
        }

        int width() {
            return (int) shape[shape.length - 1];
        }
    }

    /** The file cannot be loaded, or does not run on what it was given. */
    public static final class NetworkException extends RuntimeException {
        private static final long serialVersionUID = 1L;

        NetworkException(String message, Throwable cause) {
            super(message, cause);
        }
    }

    /** Gives the memory of all networks back that have not run for a while; who runs one again waits until it is loaded. */
    public static void releaseUnused(Duration since) {
        LOADED.forEach(each -> each.release(since));
    }

    private void release(Duration since) {
        if (!ONE_AT_A_TIME.tryLock()) {
            return;
        }
        try {
            synchronized (this) {
                if (System.nanoTime() - lastUsed < since.toNanos()) {
                    return;
                }
                OrtSession unused = session;
                session = null;
                LOADED.remove(this);
                if (unused != null) {
                    unused.close();
                }
            }
        } catch (OrtException fault) {
            throw failed(fault);
        } finally {
            ONE_AT_A_TIME.unlock();
        }
    }

    boolean isLoaded() {
        return session != null;
    }

    /** Loads the network unless it is loaded. */
    void load() {
        session();
    }

    private OrtSession session() {
        OrtSession loaded = session;
        if (loaded != null) {
            return loaded;
        }
        synchronized (this) {
            if (session == null) {
                session = opened();
                lastUsed = System.nanoTime();
                LOADED.add(this);
            }
            return java.util.Objects.requireNonNull(session);
        }
    }

    private OrtSession opened() {
        try (OrtSession.SessionOptions options = new OrtSession.SessionOptions()) {
            options.setIntraOpNumThreads(Runtime.getRuntime().availableProcessors());
            // Threads that spin while they wait take the time of those they wait for when the machine is busy.
            options.addConfigEntry("session.intra_op.allow_spinning", "0");
            // Numbers next to nothing take a processor a hundred times as long; a dark picture can be full of them.
            options.addConfigEntry("session.set_denormal_as_zero", "1");
            options.setCPUArenaAllocator(false);
            options.setMemoryPatternOptimization(false);
            // What it finds odd in a network that works is nothing for who uses the command line.
            options.setSessionLogLevel(OrtLoggingLevel.ORT_LOGGING_LEVEL_ERROR);
            return opening.open(OrtEnvironment.getEnvironment(), options);
        } catch (OrtException fault) {
            throw new NetworkException(name + " cannot be loaded as an ONNX network: " + brief(fault), fault);
        }
    }

    /** Names and shapes of the inputs; a dimension that the file leaves open is -1. */
    public Map<String, long[]> inputs() {
        return shapes(true);
    }

    /** Names and shapes of the outputs; a dimension that the file leaves open is -1. */
    public Map<String, long[]> outputs() {
        return shapes(false);
    }

    private Map<String, long[]> shapes(boolean inputs) {
        try {
            var nodes = inputs ? session().getInputInfo() : session().getOutputInfo();
            Map<String, long[]> shapes = new LinkedHashMap<>();
            nodes.forEach((name, node) -> {
                if (node.getInfo() instanceof TensorInfo tensor && tensor.type == OnnxJavaType.FLOAT) {
                    shapes.put(name, tensor.getShape());
                }
            });
            return shapes;
        } catch (OrtException fault) {
            throw new NetworkException(name + " does not say what it takes: " + brief(fault), fault);
        }
    }

    /** Runs the network and answers with the outputs asked for, in that order. */
    public List<Tensor> run(Map<String, Tensor> inputs, List<String> outputs, Progress progress) {
        progress.at(0);
        awaitTurn(progress);
        try {
            OrtSession ready = session();
            long start = System.nanoTime();
            try (OrtSession.RunOptions options = new OrtSession.RunOptions()) {
                Future<List<Tensor>> result = RUNNER.submit(() -> run(ready, inputs, outputs, options));
                List<Tensor> answer = awaited(result, options, start, progress);
                lastUsed = System.nanoTime();
                lastSeconds = (lastUsed - start) / 1e9;
                return answer;
            }
        } catch (OrtException fault) {
            throw failed(fault);
        } finally {
            ONE_AT_A_TIME.unlock();
        }
    }

    private static void awaitTurn(Progress progress) {
        try {
            while (!ONE_AT_A_TIME.tryLock(TICK_MILLIS, TimeUnit.MILLISECONDS)) {
                progress.at(0);
            }
        } catch (InterruptedException interrupted) {
            Thread.currentThread().interrupt();
            throw new CancellationException("interrupted");
        }
    }

    private List<Tensor> awaited(
            Future<List<Tensor>> result, OrtSession.RunOptions options, long start, Progress progress)
            throws OrtException {
        while (true) {
            try {
                return result.get(TICK_MILLIS, TimeUnit.MILLISECONDS);
            } catch (TimeoutException running) {
                double seconds = (System.nanoTime() - start) / 1e9;
                try {
                    progress.at(1 - Math.exp(-1.5 * seconds / lastSeconds));
                } catch (CancellationException cancelled) {
                    stop(result, options);
                    throw cancelled;
                }
            } catch (InterruptedException interrupted) {
                stop(result, options);
                Thread.currentThread().interrupt();
                throw new CancellationException("interrupted");
            } catch (ExecutionException failed) {
                throw failed(failed.getCause() == null ? failed : failed.getCause());
            }
        }
    }

    // Waits until the run has let go of its memory: the next one must not start beside it.
    private static void stop(Future<List<Tensor>> result, OrtSession.RunOptions options) throws OrtException {
        options.setTerminate(true);
        try {
            result.get();
        } catch (ExecutionException | InterruptedException terminated) {
            return;
        }
    }

    private static List<Tensor> run(
            OrtSession session, Map<String, Tensor> inputs, List<String> outputs, OrtSession.RunOptions options)
            throws OrtException {
        OrtEnvironment environment = OrtEnvironment.getEnvironment();
        Map<String, OnnxTensor> given = new LinkedHashMap<>();
        try {
            for (var input : inputs.entrySet()) {
                Tensor tensor = input.getValue();
                given.put(
                        input.getKey(),
                        OnnxTensor.createTensor(environment, tensor.samples().rewind(), tensor.shape()));
            }
            java.util.Set<String> wanted = new java.util.LinkedHashSet<>(outputs);
            try (OrtSession.Result result = session.run(given, wanted, options)) {
                List<Tensor> answer = new java.util.ArrayList<>();
                for (String wantedName : outputs) {
                    OnnxValue value = result.get(wantedName).orElseThrow();
                    if (!(value instanceof OnnxTensor tensor) || tensor.getInfo().type != OnnxJavaType.FLOAT) {
                        throw new OrtException("its output " + wantedName + " is no tensor of 32-bit numbers");
                    }
                    answer.add(new Tensor(tensor.getInfo().getShape(), tensor.getFloatBuffer()));
                }
                return answer;
            }
        } finally {
            given.values().forEach(OnnxTensor::close);
        }
    }

    private NetworkException failed(Throwable fault) {
        return new NetworkException(name + " does not run: " + brief(fault), fault);
    }

    private static String brief(Throwable fault) {
        String said = String.valueOf(fault.getMessage()).replaceAll("\\s+", " ");
        return said.length() > 240 ? said.substring(0, 240) + "..." : said;
    }
}
