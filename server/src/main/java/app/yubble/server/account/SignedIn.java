package app.yubble.server.account;

import java.io.Serializable;
import java.util.List;
import java.util.UUID;
import org.springframework.security.core.GrantedAuthority;
import org.springframework.security.core.userdetails.UserDetails;

/** The account of a session. */
public record SignedIn(UUID id, String name, String passwordHash) implements UserDetails, Serializable {
    private static final long serialVersionUID = 1L;

    @Override
    public List<GrantedAuthority> getAuthorities() {
        return List.of();
    }

    @Override
    public String getPassword() {
        return passwordHash;
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
