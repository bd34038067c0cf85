package app.yubble.server.account;

import app.yubble.server.YubbleProperties;
import app.yubble.server.problem.SecurityLog;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.security.SecureRandom;
import java.time.Duration;
import java.util.Base64;
import java.util.Objects;
import org.springframework.beans.factory.config.BeanPostProcessor;
import org.springframework.boot.web.servlet.FilterRegistrationBean;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.core.Ordered;
import org.springframework.http.HttpStatus;
import org.springframework.security.authentication.AuthenticationServiceException;
import org.springframework.security.config.annotation.web.builders.HttpSecurity;
import org.springframework.security.core.AuthenticationException;
import org.springframework.security.crypto.bcrypt.BCryptPasswordEncoder;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.security.web.SecurityFilterChain;
import org.springframework.security.web.authentication.logout.HeaderWriterLogoutHandler;
import org.springframework.security.web.context.SecurityContextHolderFilter;
import org.springframework.security.web.csrf.CsrfFilter;
import org.springframework.security.web.header.writers.ClearSiteDataHeaderWriter;
import org.springframework.security.web.header.writers.CrossOriginOpenerPolicyHeaderWriter.CrossOriginOpenerPolicy;
import org.springframework.security.web.header.writers.ReferrerPolicyHeaderWriter.ReferrerPolicy;
import org.springframework.session.FindByIndexNameSessionRepository;
import org.springframework.session.SessionIdGenerator;

/** Session cookie, CSRF token for the single-page app, and nothing under /api without signing in. */
@Configuration
class SecurityConfiguration {
    private static final String CONTENT_POLICY = "default-src 'self'; img-src 'self' blob: data:; "
            + "style-src 'self' 'unsafe-inline'; object-src 'none'; base-uri 'none'; frame-ancestors 'none'; "
            + "form-action 'self'";
    /** Nothing of a machine that a page of this application could need. */
    private static final String PERMISSIONS =
            "camera=(), microphone=(), geolocation=(), payment=(), usb=(), display-capture=()";
    /** After what sets names that a proxy tells of, before all else. */
    private static final int FIRST = Ordered.HIGHEST_PRECEDENCE + 10;

    @Bean
    PasswordEncoder passwordEncoder() {
        return new PatientEncoder(new BCryptPasswordEncoder(11));
    }

    private static final int LONGEST_BROWSER = 200;
    /** Of chance in the name of a session. */
    private static final int SESSION_BYTES = 24;

    @Bean
    SessionIdGenerator sessionIds() {
        SecureRandom random = new SecureRandom();
        return () -> {
            byte[] name = new byte[SESSION_BYTES];
            random.nextBytes(name);
            return Base64.getUrlEncoder().withoutPadding().encodeToString(name);
        };
    }

    /** The store of sessions, which Spring makes by settings, is put behind one that writes less. */
    @Bean
    static BeanPostProcessor sparingSessions() {
        return new BeanPostProcessor() {
            @Override
            public Object postProcessAfterInitialization(Object bean, String name) {
                return bean instanceof FindByIndexNameSessionRepository<?> stored
                        ? new SparingSessions<>(stored)
                        : bean;
            }
        };
    }

    @Bean
    FilterRegistrationBean<HostFilter> hosts(YubbleProperties properties, SecurityLog log) {
        FilterRegistrationBean<HostFilter> out = new FilterRegistrationBean<>(new HostFilter(properties.hosts(), log));
        out.setOrder(FIRST);
        return out;
    }

    @Bean
    SecurityFilterChain filters(HttpSecurity http, YubbleProperties properties, SecurityLog log) {
        return http.csrf(csrf -> csrf.spa())
                .headers(headers -> headers.contentSecurityPolicy(policy -> policy.policyDirectives(CONTENT_POLICY))
                        .referrerPolicy(policy -> policy.policy(ReferrerPolicy.SAME_ORIGIN))
                        .permissionsPolicyHeader(policy -> policy.policy(PERMISSIONS))
                        .crossOriginOpenerPolicy(policy -> policy.policy(CrossOriginOpenerPolicy.SAME_ORIGIN)))
                .authorizeHttpRequests(requests -> requests.requestMatchers("/api/session", "/api/accounts")
                        .permitAll()
                        .requestMatchers("/api/**")
                        .authenticated()
                        .anyRequest()
                        .permitAll())
                .addFilterBefore(
                        new SessionEnd(Duration.ofDays(properties.sessionDays())), SecurityContextHolderFilter.class)
                .addFilterBefore(new BodyLimit(log), CsrfFilter.class)
                .formLogin(form -> form.loginPage("/sign-in")
                        .loginProcessingUrl("/api/session")
                        .usernameParameter("name")
                        .successHandler((request, response, who) -> {
                            request.getSession().setAttribute(Sessions.BROWSER, browser(request));
                            log.note(SecurityLog.Event.SIGNED_IN, who.getName(), "by password");
                            response.setStatus(HttpServletResponse.SC_NO_CONTENT);
                        })
                        .failureHandler((request, response, fault) -> refuse(response, fault))
                        .permitAll())
                .logout(out -> out.logoutUrl("/api/session/end")
                        .addLogoutHandler(new HeaderWriterLogoutHandler(
                                new ClearSiteDataHeaderWriter(ClearSiteDataHeaderWriter.Directive.CACHE)))
                        .logoutSuccessHandler((request, response, who) -> {
                            log.note(SecurityLog.Event.SIGNED_OUT, who == null ? "-" : who.getName(), "on request");
                            response.setStatus(HttpServletResponse.SC_NO_CONTENT);
                        }))
                .exceptionHandling(faults -> faults.authenticationEntryPoint((request, response, fault) -> {
                            log.note(SecurityLog.Event.DENIED, told(request));
                            problem(response, HttpStatus.UNAUTHORIZED, "Sign in first.");
                        })
                        .accessDeniedHandler((request, response, fault) -> {
                            log.note(SecurityLog.Event.DENIED, told(request) + " without this page's token");
                            problem(
                                    response,
                                    HttpStatus.FORBIDDEN,
                                    "This did not come from a page of this server. Load the page again.");
                        }))
                .build();
    }

    private static String told(HttpServletRequest request) {
        return request.getMethod() + " " + request.getRequestURI();
    }

    private static String browser(HttpServletRequest request) {
        String told = Objects.requireNonNullElse(request.getHeader("User-Agent"), "");
        return told.length() <= LONGEST_BROWSER ? told : told.substring(0, LONGEST_BROWSER);
    }

    private static void refuse(HttpServletResponse response, AuthenticationException fault) throws IOException {
        if (fault instanceof ThrottledSignIn.TooManyTriesException) {
            problem(
                    response,
                    HttpStatus.TOO_MANY_REQUESTS,
                    "Too many wrong passwords. Wait five minutes and try again.");
        } else if (fault instanceof AuthenticationServiceException) {
            problem(response, HttpStatus.SERVICE_UNAVAILABLE, "The database does not answer. Try again in a moment.");
        } else {
            problem(response, HttpStatus.UNAUTHORIZED, "Name or password are wrong.");
        }
    }

    static void problem(HttpServletResponse response, HttpStatus status, String detail) throws IOException {
        problem(response, status, "sign-in", detail);
    }

    static void problem(HttpServletResponse response, HttpStatus status, String type, String detail)
            throws IOException {
        response.setStatus(status.value());
        response.setContentType("application/problem+json");
        response.setCharacterEncoding(StandardCharsets.UTF_8.name());
        response.getWriter()
                .write("{\"type\":\"/problems/" + type + "\",\"status\":" + status.value() + ",\"title\":\""
                        + status.getReasonPhrase() + "\",\"detail\":\"" + detail + "\"}");
    }
}
