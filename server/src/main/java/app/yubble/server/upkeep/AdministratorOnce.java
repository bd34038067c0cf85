package app.yubble.server.upkeep;

import app.yubble.server.account.Accounts;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.boot.ApplicationArguments;
import org.springframework.boot.ApplicationRunner;
import org.springframework.boot.SpringApplication;
import org.springframework.boot.autoconfigure.condition.ConditionalOnProperty;
import org.springframework.context.ApplicationContext;
import org.springframework.stereotype.Component;

/** With {@code --yubble.administrator=NAME} the server only lets that account see how the installation is, and ends. */
@Component
@ConditionalOnProperty("yubble.administrator")
class AdministratorOnce implements ApplicationRunner {
    private final String name;
    private final Accounts accounts;
    private final ApplicationContext context;

    AdministratorOnce(@Value("${yubble.administrator}") String name, Accounts accounts, ApplicationContext context) {
        this.name = name;
        this.accounts = accounts;
        this.context = context;
    }

    @Override
    public void run(ApplicationArguments arguments) {
        boolean found = accounts.makeAdministrator(name);
        System.out.println(found ? name + " sees the State page now" : "there is no account named " + name);
        int code = found ? 0 : 1;
        System.exit(SpringApplication.exit(context, () -> code));
    }
}
