package app.yubble.server.upkeep;

import java.io.IOException;
import java.nio.file.Path;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.boot.ApplicationArguments;
import org.springframework.boot.ApplicationRunner;
import org.springframework.boot.SpringApplication;
import org.springframework.boot.autoconfigure.condition.ConditionalOnExpression;
import org.springframework.context.ApplicationContext;
import org.springframework.stereotype.Component;

/** With {@code --yubble.backup=FOLDER} or {@code --yubble.restore=FOLDER} the server does only that, and ends. */
@Component
@ConditionalOnExpression("'${yubble.backup:}${yubble.restore:}' != ''")
class BackupOnce implements ApplicationRunner {
    private final @Nullable Path to;
    private final @Nullable Path from;
    private final Backup backup;
    private final ApplicationContext context;

    BackupOnce(
            @Value("${yubble.backup:#{null}}") @Nullable Path to,
            @Value("${yubble.restore:#{null}}") @Nullable Path from,
            Backup backup,
            ApplicationContext context) {
        this.to = to;
        this.from = from;
        this.backup = backup;
        this.context = context;
    }

    @Override
    public void run(ApplicationArguments arguments) {
        int code = 0;
        try {
            Backup.Outcome outcome = to == null ? backup.from(Objects.requireNonNull(from)) : backup.to(to);
            System.out.println(outcome.told());
            for (String hash : outcome.damaged()) {
                System.err.println(
                        "yubble: the file " + hash + " is damaged and was left out; verify tells what it belongs to");
                code = 1;
            }
        } catch (IOException fault) {
            System.err.println("yubble: " + fault.getMessage());
            code = 1;
        }
        int ended = code;
        System.exit(SpringApplication.exit(context, () -> ended));
    }
}
