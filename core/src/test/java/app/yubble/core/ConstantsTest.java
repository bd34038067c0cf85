package app.yubble.core;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;

/** A number that nobody explains is one that nobody dares to change. */
class ConstantsTest {
    private static final Path SOURCES = Path.of("src/main/java");
    private static final Pattern NUMBER = Pattern.compile("\\s+(?:public |private |protected )?static final "
            + "(?:int|double|float|long)(?:\\[])* (?!serialVersionUID)(\\w+) = .*");

    @Test
    void everyConstantSaysWhatItIs() throws IOException {
        List<String> silent = new ArrayList<>();
        int all = 0;
        try (Stream<Path> files = Files.walk(SOURCES)) {
            for (Path file :
                    files.filter(each -> each.toString().endsWith(".java")).toList()) {
                List<String> lines = Files.readAllLines(file);
                for (int i = 1; i < lines.size(); i++) {
                    Matcher number = NUMBER.matcher(lines.get(i));
                    if (number.matches()) {
                        all++;
                        String before = lines.get(i - 1).strip();
                        if (!before.endsWith("*/") && !before.startsWith("//")) {
                            silent.add(file.getFileName() + " " + number.group(1));
                        }
                    }
                }
            }
        }
        assertThat(all).isGreaterThan(200);
        assertThat(silent).isEmpty();
    }
}
