package app.yubble.server;

import app.yubble.server.database.DatabaseAccess;
import app.yubble.server.database.FolderInUseException;
import app.yubble.server.database.LocalMariaDb;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import org.springframework.boot.SpringApplication;
import org.springframework.boot.autoconfigure.SpringBootApplication;
import org.springframework.boot.context.properties.ConfigurationPropertiesScan;
import org.springframework.scheduling.annotation.EnableScheduling;

/**
 * Starts the server. With {@code --yubble.database=managed} it also runs a MariaDB of its own below the data folder;
 * otherwise {@code spring.datasource.*} name one.
 */
@SpringBootApplication
@ConfigurationPropertiesScan
@EnableScheduling
public class YubbleServer {
    private static final List<String> ONCE =
            List.of("--yubble.verify=", "--yubble.administrator=", "--yubble.backup=", "--yubble.restore=");

    /** Made by the framework. */
    YubbleServer() {}

    public static void main(String[] arguments) {
        System.setProperty("java.awt.headless", "true");
        SpringApplication application = new SpringApplication(YubbleServer.class);
        if (!option(arguments, "--yubble.database=", "external").equals("managed")) {
            application.run(arguments);
            return;
        }
        Path data = Path.of(option(arguments, "--yubble.data=", "var"));
        LocalMariaDb database;
        try {
            database = LocalMariaDb.start(data.resolve("database"));
        } catch (FolderInUseException inUse) {
            if (isOnce(arguments)) {
                application.setDefaultProperties(ofRunning(data));
                application.run(arguments);
                return;
            }
            System.err.println(inUse.getMessage());
            System.exit(1);
            return;
        }
        application.setDefaultProperties(database.properties());
        SpringApplication.getShutdownHandlers().add(database::stop);
        try {
            application.run(arguments);
        } catch (RuntimeException | Error fault) {
            // A start that does not succeed has no context whose end would stop the database.
            database.stop();
            throw fault;
        }
    }

    private static Map<String, Object> ofRunning(Path data) {
        try {
            return DatabaseAccess.ofRunning(data.resolve("database")).properties();
        } catch (IOException fault) {
            throw new UncheckedIOException("the database of " + data + " cannot be reached", fault);
        }
    }

    /** Whether it only does one thing, beside the server that has the folder, and ends. */
    private static boolean isOnce(String[] arguments) {
        return ONCE.stream().anyMatch(start -> !option(arguments, start, "").isEmpty());
    }

    private static String option(String[] arguments, String start, String otherwise) {
        for (String argument : arguments) {
            if (argument.startsWith(start)) {
                return argument.substring(start.length());
            }
        }
        return otherwise;
    }
}
