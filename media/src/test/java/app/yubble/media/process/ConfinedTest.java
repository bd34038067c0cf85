package app.yubble.media.process;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class ConfinedTest {
    private static final Confined.Limits PLENTY = new Confined.Limits(4_000_000, 20L, 1_000_000L);

    @TempDir
    Path folder;

    private int run(Confined.Limits limits, String... program) throws IOException, InterruptedException {
        Process process = Confined.start(limits, List.of(program), folder, folder.resolve("said"));
        assertThat(process.waitFor(20, TimeUnit.SECONDS)).isTrue();
        return process.exitValue();
    }

    private String said() throws IOException {
        return Files.readString(folder.resolve("said"));
    }

    @Test
    void aProgramSeesNothingOfOurEnvironment() throws IOException, InterruptedException {
        assertThat(run(PLENTY, "env")).isZero();
        assertThat(said().lines().map(line -> line.replaceAll("=.*", "")))
                .contains("PATH", "HOME")
                .allMatch(List.of("PATH", "LANG", "HOME", "TMPDIR", "PWD", "OLDPWD", "SHLVL", "_")::contains);
    }

    @Test
    void whatItTakesIsLimited() throws IOException, InterruptedException {
        assertThat(run(PLENTY, "dd", "if=/dev/zero", "of=large", "bs=100000", "count=30"))
                .isNotZero();
        assertThat(Files.size(folder.resolve("large"))).isLessThanOrEqualTo(1_000_000);
        assertThat(run(new Confined.Limits(200_000, 20L, null), "dd", "if=/dev/zero", "of=/dev/null", "bs=900000000"))
                .isNotZero();
        assertThat(run(new Confined.Limits(4_000_000, 1L, null), "sh", "-c", "while :; do :; done"))
                .isNotZero();
        assertThat(run(PLENTY, "no-such-program")).isEqualTo(Confined.NOT_FOUND);
    }

    @Test
    void argumentsGoThroughUntouched() throws IOException, InterruptedException {
        assertThat(run(PLENTY, "printf", "%s|", "a b", "$HOME", "'; rm x", "*")).isZero();
        assertThat(said()).isEqualTo("a b|$HOME|'; rm x|*|");
    }

    @Test
    void itHasNoNetworkWhereTheSystemAllowsThat() throws IOException, InterruptedException {
        try (ServerSocket door = new ServerSocket(0, 1, InetAddress.getLoopbackAddress())) {
            String address = "http://127.0.0.1:" + door.getLocalPort() + "/";
            int code = run(PLENTY, "curl", "-s", "-m", "2", address);
            // 7 is: could not connect; 28: it connected, and nobody answered.
            assertThat(code).isEqualTo(Confined.isWithoutNetwork() ? 7 : 28);
        }
    }

    /** Runs in a process of its own. */
    static final class Mortal {
        private Mortal() {}

        public static void main(String[] arguments) throws IOException, InterruptedException {
            Process child = Confined.start(PLENTY, List.of("sleep", "60"));
            System.out.println(child.pid());
            Thread.sleep(60_000);
        }
    }

    @Test
    void itEndsWithUsHoweverWeEnd() throws IOException, InterruptedException {
        Process mortal = new ProcessBuilder(
                        ProcessHandle.current().info().command().orElseThrow(),
                        "-cp",
                        System.getProperty("java.class.path"),
                        Mortal.class.getName())
                .redirectError(ProcessBuilder.Redirect.DISCARD)
                .start();
        byte[] line = new byte[32];
        int length = mortal.getInputStream().read(line);
        long pid = Long.parseLong(new String(line, 0, length, StandardCharsets.US_ASCII).strip());
        // The shell becomes the program.
        Thread.sleep(500);
        assertThat(ProcessHandle.of(pid).map(ProcessHandle::isAlive)).contains(true);
        mortal.destroyForcibly().waitFor();
        Instant most = Instant.now().plusSeconds(5);
        while (ProcessHandle.of(pid).map(ProcessHandle::isAlive).orElse(false)
                && Instant.now().isBefore(most)) {
            Thread.sleep(50);
        }
        assertThat(ProcessHandle.of(pid).map(ProcessHandle::isAlive).orElse(false))
                .isFalse();
    }

    @Test
    void foldersOfProgramsThatDiedAreRemovedAfterSomeTime() throws IOException {
        WorkFolder old = WorkFolder.create();
        Files.write(old.path().resolve("in.png"), new byte[100]);
        Files.setLastModifiedTime(old.path(), FileTime.from(Instant.now().minus(Duration.ofDays(3))));
        try (WorkFolder fresh = WorkFolder.create()) {
            WorkFolder.removeLeftOver(Instant.now().minus(Duration.ofDays(1)));
            assertThat(old.path()).doesNotExist();
            assertThat(fresh.path()).exists();
        }
    }
}
