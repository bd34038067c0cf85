package app.yubble.server.node;

import java.util.HashMap;
import java.util.Map;
import org.springframework.boot.EnvironmentPostProcessor;
import org.springframework.boot.SpringApplication;
import org.springframework.boot.context.properties.bind.Binder;
import org.springframework.core.Ordered;
import org.springframework.core.env.ConfigurableEnvironment;
import org.springframework.core.env.MapPropertySource;

/** What a role means for the parts that are not ours: without work there are no workers, with nothing else no pages. */
final class RoleSettings implements EnvironmentPostProcessor, Ordered {
    /** Made by the framework. */
    RoleSettings() {}

    @Override
    public void postProcessEnvironment(ConfigurableEnvironment environment, SpringApplication application) {
        Role role = Binder.get(environment).bind("yubble.node.role", Role.class).orElse(Role.ALL);
        Map<String, Object> settings = new HashMap<>();
        if (role == Role.WEB) {
            settings.put("jobrunr.background-job-server.enabled", false);
        } else if (role == Role.WORK) {
            settings.put("server.port", -1);
        }
        environment.getPropertySources().addFirst(new MapPropertySource("role", settings));
    }

    /** When the settings have been read. */
    @Override
    public int getOrder() {
        return Ordered.LOWEST_PRECEDENCE;
    }
}
