package app.yubble.bench.endure;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.List;
import java.util.Locale;
import java.util.Random;
import java.util.TreeMap;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicLong;
import java.util.stream.Stream;
import java.util.zip.CRC32;

/**
 * Sends files that are damaged in many ways to everything that takes files: photos, depth, masks, recipes. Nothing may bring the
 * server down, take long, or stay behind in its memory.
 */
final class DamageTrial {
    private static final int SENDERS = 3;
    private static final long MOST_MILLIS = 5000;
    private static final int FULL_DISK = 507;
    private static final int FIRST_FAULT = 500;
    /** Larger ones only make the trial slow; what they are damaged in is the same. */
    private static final long LARGEST = 3_000_000;

    private static final int DEPTH = 2;
    private static final int RECIPE = 4;
    /** The first byte of an EXR file. */
    private static final byte EXR = 0x76;

    private static final int PNG = 0x89504e47;
    /** What a heap may be larger by afterwards: caches have filled. */
    private static final double MOST_GROWTH = 1.5;

    private final Host host;
    private final Random random;
    private final List<byte[]> seeds = new ArrayList<>();

    /** @param examples folders with whole files of all kinds */
    DamageTrial(Host host, List<Path> examples, long seed) throws IOException {
        this.host = host;
        random = new Random(seed);
        for (Path folder : examples) {
            try (Stream<Path> files = Files.walk(folder)) {
                for (Path file : files.filter(Files::isRegularFile).sorted().toList()) {
                    if (Files.size(file) <= LARGEST) {
                        seeds.add(Files.readAllBytes(file));
                    }
                }
            }
        }
        seeds.add(Photos.photo(320, 240));
    }

    /** What it came to. */
    record Report(
            int files,
            TreeMap<Integer, Integer> answers,
            long longestMillis,
            long before,
            long after,
            List<String> faults) {
        @Override
        public String toString() {
            return String.format(
                    Locale.ROOT,
                    "%d damaged files: answers %s, the longest after %d ms; heap %d MB before, %d MB after%s",
                    files,
                    answers,
                    longestMillis,
                    before / 1_000_000,
                    after / 1_000_000,
                    faults.isEmpty() ? "" : "; WRONG: " + String.join("; ", faults));
        }
    }

    Report run(int files) throws IOException, InterruptedException {
        Client client = new Client(host.port()).signedUp("breaker");
        String shot = client.shot("photo.jpg", Photos.photo(640, 480));
        client.awaitReady(shot);
        String shoot = Client.text(client.get("/api/shots/" + shot).required().json(), "shootId");
        List<String> paths = List.of(
                "/api/shoots/" + shoot + "/shots",
                "/api/shots/" + shot + "/source",
                "/api/shots/" + shot + "/depth-file",
                "/api/shots/" + shot + "/masks",
                "/api/shots/" + shot + "/recipe-file");
        long before = host.liveBytes();
        TreeMap<Integer, Integer> answers = new TreeMap<>();
        AtomicLong longest = new AtomicLong();
        List<String> faults = Collections.synchronizedList(new ArrayList<>());
        ExecutorService senders = Executors.newFixedThreadPool(SENDERS);
        for (int i = 0; i < files; i++) {
            // Photos are what everybody brings.
            int kind = random.nextInt(3) > 0 ? 0 : random.nextInt(paths.size());
            String path = paths.get(kind);
            byte[] file = damaged(kind);
            String name = "file " + i;
            senders.execute(() -> {
                try {
                    Client.Answer answer = client.upload(path, name, file);
                    synchronized (answers) {
                        answers.merge(answer.status(), 1, Integer::sum);
                    }
                    longest.accumulateAndGet(answer.millis(), Math::max);
                    boolean fault = answer.status() >= FIRST_FAULT && answer.status() != FULL_DISK;
                    if (fault || answer.millis() > MOST_MILLIS) {
                        faults.add(name + " at " + path + ": " + answer.status() + " after " + answer.millis()
                                + " ms, kept as " + kept(file));
                    }
                    if (answer.isGood() && path.equals(paths.get(0))) {
                        client.delete("/api/shots/" + Client.text(answer.json(), "id"));
                    }
                } catch (IOException fault) {
                    faults.add(name + " at " + path + ": " + fault);
                }
            });
        }
        senders.shutdown();
        senders.awaitTermination(1, TimeUnit.DAYS);
        if (!host.isAlive()) {
            faults.add("the server is gone");
        }
        long after = host.liveBytes();
        if (after > MOST_GROWTH * before + 20_000_000) {
            faults.add("the heap has grown");
        }
        return new Report(files, answers, longest.get(), before, after, List.copyOf(faults));
    }

    private static Path kept(byte[] file) throws IOException {
        Path out = Files.createTempFile("damaged-", ".bin");
        Files.write(out, file);
        return out;
    }

    /** Cut off, with bytes changed, with lengths made large, with parts doubled, taken out or of another file. */
    private byte[] damaged(int kind) {
        byte[] file = seed(kind).clone();
        int times = 1 + random.nextInt(3);
        for (int i = 0; i < times && file.length > 16; i++) {
            file = damagedOnce(file);
        }
        if (random.nextBoolean()) {
            mendSums(file);
        }
        return file;
    }

    /** Mostly a file of the kind that belongs there: what is none is soon refused. */
    private byte[] seed(int kind) {
        for (int tries = 0; tries < 100; tries++) {
            byte[] file = seeds.get(random.nextInt(seeds.size()));
            boolean text = file[0] == '{';
            boolean fits = kind == RECIPE ? text : kind == DEPTH ? !text : !text && file[0] != EXR;
            if (fits) {
                return file;
            }
        }
        return seeds.get(random.nextInt(seeds.size()));
    }

    /** Damage in a PNG file would not be looked at if it were betrayed by the sum of its chunk. */
    private static void mendSums(byte[] file) {
        ByteBuffer in = ByteBuffer.wrap(file);
        if (file.length < 8 || in.getInt(0) != PNG) {
            return;
        }
        for (long at = 8; at + 12 <= file.length; ) {
            int start = (int) at;
            long length = Integer.toUnsignedLong(in.getInt(start));
            if (at + 12 + length > file.length) {
                return;
            }
            CRC32 sum = new CRC32();
            sum.update(file, start + 4, (int) length + 4);
            in.putInt((int) (at + 8 + length), (int) sum.getValue());
            at += 12 + length;
        }
    }

    private byte[] damagedOnce(byte[] file) {
        // What lies at the beginning is what is read into structures.
        int reach = random.nextBoolean() ? Math.min(file.length, 2048) : file.length;
        int at = random.nextInt(reach - 8);
        int count = 1 + random.nextInt(Math.min(64, file.length - at));
        switch (random.nextInt(6)) {
            case 0 -> {
                return Arrays.copyOf(file, at + 1);
            }
            case 1 -> {
                for (int i = 0; i < count; i++) {
                    file[at + random.nextInt(count)] = (byte) random.nextInt();
                }
            }
            case 2 -> ByteBuffer.wrap(file).putInt(at, random.nextBoolean() ? 0x7fffffff : -1);
            case 3 -> {
                byte[] without = new byte[file.length - count];
                System.arraycopy(file, 0, without, 0, at);
                System.arraycopy(file, at + count, without, at, without.length - at);
                return without;
            }
            case 4 -> {
                byte[] more = new byte[file.length + count];
                System.arraycopy(file, 0, more, 0, at + count);
                System.arraycopy(file, at, more, at + count, file.length - at);
                return more;
            }
            default -> {
                byte[] other = seeds.get(random.nextInt(seeds.size()));
                System.arraycopy(other, 0, file, at, Math.min(count, other.length));
            }
        }
        return file;
    }
}
