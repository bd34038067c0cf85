package app.yubble.server.account;

import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.http.HttpStatus;
import org.springframework.security.config.annotation.web.builders.HttpSecurity;
import org.springframework.security.crypto.bcrypt.BCryptPasswordEncoder;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.security.web.SecurityFilterChain;
import org.springframework.security.web.authentication.UsernamePasswordAuthenticationFilter;

/** Session cookie, CSRF token for the single-page app, and nothing under /api without signing in. */
@Configuration
class SecurityConfiguration {
    private static final String CONTENT_POLICY = "default-src 'self'; img-src 'self' blob: data:; "
            + "style-src 'self' 'unsafe-inline'; object-src 'none'; base-uri 'none'; frame-ancestors 'none'";

    @Bean
    PasswordEncoder passwordEncoder() {
        return new BCryptPasswordEncoder(11);
    }

    @Bean
    SecurityFilterChain filters(HttpSecurity http, SignInThrottle throttle) {
        return http.csrf(csrf -> csrf.spa())
                .headers(headers -> headers.contentSecurityPolicy(policy -> policy.policyDirectives(CONTENT_POLICY)))
                .authorizeHttpRequests(requests -> requests.requestMatchers("/api/session", "/api/accounts")
                        .permitAll()
                        .requestMatchers("/api/**")
                        .authenticated()
                        .anyRequest()
                        .permitAll())
                .addFilterBefore(throttle, UsernamePasswordAuthenticationFilter.class)
                .formLogin(form -> form.loginPage("/sign-in")
                        .loginProcessingUrl("/api/session")
                        .usernameParameter("name")
                        .successHandler((request, response, who) -> {
                            throttle.succeeded(request);
                            response.setStatus(HttpServletResponse.SC_NO_CONTENT);
                        })
                        .failureHandler((request, response, fault) -> {
                            throttle.failed(request);
                            problem(response, HttpStatus.UNAUTHORIZED, "Name or password are wrong.");
                        })
                        .permitAll())
                .logout(out -> out.logoutUrl("/api/session/end")
                        .logoutSuccessHandler(
                                (request, response, who) -> response.setStatus(HttpServletResponse.SC_NO_CONTENT)))
                .exceptionHandling(faults -> faults.authenticationEntryPoint(
                        (request, response, fault) -> problem(response, HttpStatus.UNAUTHORIZED, "Sign in first.")))
                .build();
    }

    static void problem(HttpServletResponse response, HttpStatus status, String detail) throws IOException {
        response.setStatus(status.value());
        response.setContentType("application/problem+json");
        response.setCharacterEncoding(StandardCharsets.UTF_8.name());
        response.getWriter()
                .write("{\"type\":\"/problems/sign-in\",\"status\":" + status.value() + ",\"title\":\""
                        + status.getReasonPhrase() + "\",\"detail\":\"" + detail + "\"}");
    }
}
