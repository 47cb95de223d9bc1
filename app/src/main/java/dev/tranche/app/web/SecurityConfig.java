package dev.tranche.app.web;

import dev.tranche.app.storage.TrancheProperties;
import java.util.Set;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.security.config.Customizer;
import org.springframework.security.config.annotation.web.builders.HttpSecurity;
import org.springframework.security.config.annotation.web.configuration.WebSecurityCustomizer;
import org.springframework.security.config.http.SessionCreationPolicy;
import org.springframework.security.core.userdetails.User;
import org.springframework.security.core.userdetails.UserDetailsService;
import org.springframework.security.provisioning.InMemoryUserDetailsManager;
import org.springframework.security.web.SecurityFilterChain;
import org.springframework.security.web.csrf.CookieCsrfTokenRepository;
import org.springframework.security.web.firewall.StrictHttpFirewall;

/**
 * Who may talk to Tranche: pages of its own on this machine, or whoever knows the password. No scripts or styles
 * but those that ship with it.
 */
@Configuration
class SecurityConfig {
    private static final String OWN_CONTENT_ONLY = "default-src 'none'; script-src 'self'; style-src 'self'; "
            + "img-src 'self' data:; font-src 'self'; connect-src 'self'; form-action 'self'; base-uri 'none'; "
            + "frame-ancestors 'none'";
    private static final Set<String> THIS_MACHINE = Set.of("localhost", "127.0.0.1", "[::1]", "::1");

    @Bean
    SecurityFilterChain pages(HttpSecurity http, TrancheProperties properties) throws Exception {
        boolean open = properties.password().isEmpty();
        http.authorizeHttpRequests(requests -> {
            if (open) {
                requests.anyRequest().permitAll();
            } else {
                // Whoever started it asks whether it is ready, and nothing else is told without the password.
                requests.requestMatchers("/actuator/health/**").permitAll();
                requests.anyRequest().authenticated();
            }
        });
        if (!open) {
            http.httpBasic(Customizer.withDefaults());
        }
        // The token lives in a cookie, so that a page stays usable when the server was restarted under it.
        CookieCsrfTokenRepository tokens = new CookieCsrfTokenRepository();
        tokens.setCookieCustomizer(cookie -> cookie.sameSite("Strict"));
        return http.csrf(csrf -> csrf.csrfTokenRepository(tokens)
                        // The interface for programs changes nothing that stays, and answers no other site's pages.
                        .ignoringRequestMatchers("/api/v1/**"))
                .sessionManagement(s -> s.sessionCreationPolicy(SessionCreationPolicy.STATELESS))
                .headers(headers -> headers.contentSecurityPolicy(csp -> csp.policyDirectives(OWN_CONTENT_ONLY))
                        .referrerPolicy(Customizer.withDefaults()))
                .build();
    }

    @Bean
    UserDetailsService owner(TrancheProperties properties) {
        return properties.password().isEmpty()
                ? new InMemoryUserDetailsManager()
                : new InMemoryUserDetailsManager(User.withUsername("tranche")
                        .password("{noop}" + properties.password())
                        .build());
    }

    /** Refuses pages of other sites that had their name point to this machine. */
    @Bean
    WebSecurityCustomizer hosts(TrancheProperties properties) {
        StrictHttpFirewall firewall = new StrictHttpFirewall();
        if (properties.password().isEmpty()) {
            firewall.setAllowedHostnames(THIS_MACHINE::contains);
        }
        return web -> web.httpFirewall(firewall);
    }
}
