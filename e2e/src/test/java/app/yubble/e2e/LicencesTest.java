package app.yubble.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Stream;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Everything that is shipped, as its bill of materials lists it, may be shipped with an Apache-2.0 application. */
class LicencesTest {
    private static final Set<String> GOOD = Set.of(
            "Apache-2.0",
            "MIT",
            "MIT-0",
            "BSD-2-Clause",
            "BSD-3-Clause",
            "ISC",
            "CC0-1.0",
            "EPL-1.0",
            "EPL-2.0",
            "EDL-1.0",
            "LGPL-2.1-only",
            "LGPL-2.1-or-later",
            "LGPL-3.0-only",
            "OFL-1.1",
            "GPL-2.0-with-classpath-exception");

    /** Read by a person, because their build files say it in words of their own. */
    private static final Map<String, String> READ = Map.of(
            "com.twelvemonkeys.", "BSD with three clauses; the build file only says BSD",
            "org.jobrunr:", "LGPL 3.0 or later, by choice",
            "org.springframework.session:", "the archive holds the Apache License 2.0");

    @ParameterizedTest
    @ValueSource(strings = {"../server/target/bom.json", "../cli/target/bom.json", "../web/target/bom.json"})
    void everyPartHasALicenceThatFits(String bill) throws IOException {
        List<String> others = new ArrayList<>();
        JsonNode components =
                JsonMapper.shared().readTree(Files.readString(Path.of(bill))).path("components");
        for (JsonNode component : components) {
            List<String> licences = licences(component);
            String name = component.path("group").asString("") + ":"
                    + component.path("name").asString();
            if (!name.startsWith("app.yubble:")
                    && READ.keySet().stream().noneMatch(name::startsWith)
                    && licences.stream().noneMatch(GOOD::contains)) {
                others.add(name + " " + licences);
            }
        }
        assertThat(components.size()).isGreaterThan(4);
        assertThat(others).isEmpty();
    }

    /** Of several one may choose. */
    private static List<String> licences(JsonNode component) {
        return component
                .path("licenses")
                .valueStream()
                .flatMap(each -> each.has("expression")
                        ? Stream.of(each.path("expression").asString().split(" OR |[()]"))
                        : Stream.of(each.path("license")
                                .path("id")
                                .asString(each.path("license").path("name").asString(""))))
                .toList();
    }
}
