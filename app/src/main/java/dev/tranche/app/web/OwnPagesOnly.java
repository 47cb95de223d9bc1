package dev.tranche.app.web;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.net.URI;
import java.net.URISyntaxException;
import java.nio.charset.StandardCharsets;
import java.util.Set;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.http.HttpHeaders;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;

/**
 * Refuses what a page of another site asks for, the interface for programs included: browsers say where a request comes
 * from (WHATWG Fetch, Origin; W3C Fetch Metadata, Sec-Fetch-Site), and programs that are no browsers say nothing.
 */
@Component
@Order(Ordered.HIGHEST_PRECEDENCE + 10)
class OwnPagesOnly extends OncePerRequestFilter {
    private static final Set<String> ONLY_READ = Set.of("GET", "HEAD", "OPTIONS", "TRACE");
    private static final Set<String> OURS = Set.of("same-origin", "none");

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        if (ONLY_READ.contains(request.getMethod()) || isOwn(request)) {
            chain.doFilter(request, response);
            return;
        }
        response.setStatus(HttpServletResponse.SC_FORBIDDEN);
        response.setContentType("application/problem+json");
        response.getOutputStream()
                .write(
                        "{\"status\":403,\"detail\":\"This was asked by a page of another site, and Tranche answers its own pages and programs only.\"}"
                                .getBytes(StandardCharsets.UTF_8));
    }

    private static boolean isOwn(HttpServletRequest request) {
        String site = request.getHeader("Sec-Fetch-Site");
        if (site != null) {
            // A page that tells no referrer sends “null” for its origin, its own forms included; this header is surer.
            return OURS.contains(site);
        }
        String origin = request.getHeader(HttpHeaders.ORIGIN);
        return origin == null || isHost(origin, request.getHeader(HttpHeaders.HOST));
    }

    private static boolean isHost(String origin, String host) {
        try {
            return host != null && host.equalsIgnoreCase(new URI(origin).getRawAuthority());
        } catch (URISyntaxException e) {
            return false;
        }
    }
}
