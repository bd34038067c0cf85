package app.yubble.server.account;

import java.io.Serializable;
import java.util.List;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.security.core.GrantedAuthority;
import org.springframework.security.core.userdetails.UserDetails;

/** The account of a session. It is stored with the session and holds nothing secret. */
public record SignedIn(UUID id, String name) implements UserDetails, Serializable {
    private static final long serialVersionUID = 1L;

    @Override
    public List<GrantedAuthority> getAuthorities() {
        return List.of();
    }

    @Override
    public @Nullable String getPassword() {
        return null;
    }

    @Override
    public String getUsername() {
        return name;
    }

    @Override
    public String toString() {
        return name;
    }
}
