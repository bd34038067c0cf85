package app.yubble.server.database;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** How a database is reached by programs beside the server. */
public record DatabaseAccess(String host, int port, String name, String user, String password) {
    private static final Pattern ADDRESS = Pattern.compile("jdbc:mariadb://([^:/?]+)(?::(\\d+))?/([^?]+).*");
    private static final int USUAL_PORT = 3306;

    /** One of our own, on this machine. */
    static DatabaseAccess local(int port, String user, String password) {
        return new DatabaseAccess("127.0.0.1", port, LocalMariaDb.NAME, user, password);
    }

    /** @param url as Spring Boot's settings have it */
    public static DatabaseAccess of(String url, String user, String password) {
        Matcher parts = ADDRESS.matcher(url);
        if (!parts.matches()) {
            throw new IllegalArgumentException("not the address of a MariaDB: " + url);
        }
        int port = parts.group(2) == null ? USUAL_PORT : Integer.parseInt(parts.group(2));
        return new DatabaseAccess(parts.group(1), port, parts.group(3), user, password);
    }

    /** Whether a database of ours runs, or ran, in a folder. */
    public static boolean isManaged(Path folder) {
        return Files.exists(folder.resolve(LocalMariaDb.PORT_FILE));
    }

    /** That of the server which has the folder. */
    public static DatabaseAccess ofRunning(Path folder) throws IOException {
        int port = Integer.parseInt(
                Files.readString(folder.resolve(LocalMariaDb.PORT_FILE)).strip());
        return local(
                port,
                LocalMariaDb.USER,
                Files.readString(folder.resolve("password")).strip());
    }

    /** A client program of the database, up to its own options. */
    public ProcessBuilder client(String program, List<String> options) {
        ProcessBuilder out = new ProcessBuilder(program, "--no-defaults", "--host=" + host, "--port=" + port);
        out.command().add("--user=" + user);
        out.command().addAll(options);
        // Not among the arguments, which everybody on the machine can read.
        out.environment().put("MYSQL_PWD", password);
        return out;
    }

    /** Where it is, as Spring Boot's settings. */
    public Map<String, Object> properties() {
        return Map.of(
                "spring.datasource.url",
                url(LocalMariaDb.SOCKET_TIMEOUT),
                "spring.datasource.username",
                user,
                "spring.datasource.password",
                password,
                // Changing a large table takes longer than any question.
                "spring.flyway.url",
                url(0),
                "spring.flyway.user",
                user,
                "spring.flyway.password",
                password);
    }

    String url(int socketTimeout) {
        return "jdbc:mariadb://" + host + ":" + port + "/" + name + "?connectTimeout=3000&socketTimeout="
                + socketTimeout;
    }
}
