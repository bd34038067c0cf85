package app.yubble.server.upkeep;

import app.yubble.server.storage.Verification;
import java.io.IOException;
import org.springframework.boot.ApplicationArguments;
import org.springframework.boot.ApplicationRunner;
import org.springframework.boot.SpringApplication;
import org.springframework.boot.autoconfigure.condition.ConditionalOnProperty;
import org.springframework.context.ApplicationContext;
import org.springframework.stereotype.Component;

/** With {@code --yubble.verify=true} the server only looks whether the store holds all that the database names, says so and ends. */
@Component
@ConditionalOnProperty("yubble.verify")
class VerifyOnce implements ApplicationRunner {
    private final Verification verification;
    private final ApplicationContext context;

    VerifyOnce(Verification verification, ApplicationContext context) {
        this.verification = verification;
        this.context = context;
    }

    @Override
    public void run(ApplicationArguments arguments) throws IOException {
        Verification.Report report = verification.look();
        report.damaged().forEach(System.out::println);
        System.out.println(
                report.good() + " stored files are whole, " + report.damaged().size() + " are damaged or missing, "
                        + report.unnamed() + " are named by nothing any more");
        int code = report.damaged().isEmpty() ? 0 : 1;
        System.exit(SpringApplication.exit(context, () -> code));
    }
}
