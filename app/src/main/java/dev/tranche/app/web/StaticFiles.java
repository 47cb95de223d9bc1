package dev.tranche.app.web;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.List;
import org.springframework.context.annotation.Configuration;
import org.springframework.core.io.Resource;
import org.springframework.core.io.support.PathMatchingResourcePatternResolver;
import org.springframework.http.CacheControl;
import org.springframework.util.DigestUtils;
import org.springframework.web.servlet.HandlerInterceptor;
import org.springframework.web.servlet.config.annotation.InterceptorRegistry;
import org.springframework.web.servlet.config.annotation.ResourceHandlerRegistration;
import org.springframework.web.servlet.config.annotation.ResourceHandlerRegistry;
import org.springframework.web.servlet.config.annotation.WebMvcConfigurer;
import org.springframework.web.servlet.resource.VersionResourceResolver;

/**
 * Styles, scripts, fonts and pictures, under the addresses they have and no other: every link of a page is looked up
 * among those that may be files, and nearly all links are not.
 *
 * <p>Pages name their own styles, scripts and pictures by an address that holds what all of them are, so that a browser
 * asks for each once, and for all anew when one has changed. Modules find each other beside themselves.
 */
@Configuration
class StaticFiles implements WebMvcConfigurer {
    /** What runs the CAD kernel, beside the pages, may compile WebAssembly and the calls into it; nothing else may. */
    private static final String KERNEL = "/js/step/worker.js";

    private static final String KERNEL_ONLY =
            "default-src 'none'; script-src 'self' 'wasm-unsafe-eval' 'unsafe-eval'; connect-src 'self'";

    /** Of pages; in this order their digest is taken. */
    private static final List<String> NAMED_BY_PAGES = List.of("css", "js", "img");

    private static final List<String> NAMED_AS_THEY_ARE = List.of("schemas", "vendor");

    private static final CacheControl FOR_GOOD =
            CacheControl.maxAge(Duration.ofDays(365)).immutable();

    private final String edition = edition();

    @Override
    public void addInterceptors(InterceptorRegistry registry) {
        registry.addInterceptor(new HandlerInterceptor() {
                    @Override
                    public boolean preHandle(HttpServletRequest request, HttpServletResponse response, Object handler) {
                        response.setHeader("Content-Security-Policy", KERNEL_ONLY);
                        return true;
                    }
                })
                .addPathPatterns(KERNEL);
    }

    @Override
    public void addResourceHandlers(ResourceHandlerRegistry registry) {
        registry.addResourceHandler("/webjars/**")
                .addResourceLocations("classpath:/META-INF/resources/webjars/")
                // Their addresses hold their versions.
                .setCacheControl(FOR_GOOD)
                .resourceChain(true);
        for (String folder : NAMED_BY_PAGES) {
            folder(registry, folder, folder + "/" + edition).setCacheControl(FOR_GOOD);
            // Puts the edition into the links of pages.
            folder(registry, folder, folder)
                    .setCacheControl(CacheControl.noCache())
                    .resourceChain(true)
                    .addResolver(new VersionResourceResolver().addFixedVersionStrategy(edition, "/**"));
        }
        for (String folder : NAMED_AS_THEY_ARE) {
            folder(registry, folder, folder).setCacheControl(CacheControl.noCache());
        }
    }

    private static ResourceHandlerRegistration folder(ResourceHandlerRegistry registry, String folder, String address) {
        return registry.addResourceHandler("/" + address + "/**")
                .addResourceLocations("classpath:/static/" + folder + "/");
    }

    /** Another whenever one of the files that pages name is. */
    private static String edition() {
        StringBuilder all = new StringBuilder();
        try {
            for (String folder : NAMED_BY_PAGES) {
                for (Resource file : new PathMatchingResourcePatternResolver()
                        .getResources("classpath:/static/" + folder + "/**/*.*")) {
                    try (InputStream in = file.getInputStream()) {
                        DigestUtils.appendMd5DigestAsHex(in, all);
                    }
                }
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return DigestUtils.md5DigestAsHex(all.toString().getBytes(StandardCharsets.US_ASCII))
                .substring(0, 12);
    }
}
