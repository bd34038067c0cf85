package app.yubble.server.node;

import app.yubble.server.problem.CannotStartException;
import java.net.InetAddress;
import java.net.UnknownHostException;
import java.security.SecureRandom;
import java.util.Locale;
import org.springframework.stereotype.Component;

/** This process among others. */
@Component
public class Node {
    private static final int LONGEST = 32;
    private static final int MADE_UP = 0x10000;

    private final String name;
    private final boolean named;
    private final Role role;

    Node(NodeProperties properties) {
        String wanted = properties.name();
        named = wanted != null;
        name = wanted != null ? wanted : madeUp();
        if (!name.matches("[a-z0-9-]{1,40}")) {
            throw new CannotStartException(
                    "A node cannot be named " + name + ".",
                    "yubble.node.name takes small letters, digits and hyphens, at most 40.");
        }
        role = properties.role();
    }

    private static String madeUp() {
        String host;
        try {
            host = InetAddress.getLocalHost().getHostName();
        } catch (UnknownHostException unnamed) {
            host = "node";
        }
        String plain = host.toLowerCase(Locale.ROOT).replaceAll("[^a-z0-9-]", "-");
        return plain.substring(0, Math.min(LONGEST, plain.length()))
                + String.format("-%04x", new SecureRandom().nextInt(MADE_UP));
    }

    public String name() {
        return name;
    }

    /** Whether whoever runs it has given it its name, so that pages may be routed by it. */
    boolean isNamed() {
        return named;
    }

    public Role role() {
        return role;
    }
}
