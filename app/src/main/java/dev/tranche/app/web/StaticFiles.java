package dev.tranche.app.web;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.time.Duration;
import org.springframework.context.annotation.Configuration;
import org.springframework.http.CacheControl;
import org.springframework.web.servlet.HandlerInterceptor;
import org.springframework.web.servlet.config.annotation.InterceptorRegistry;
import org.springframework.web.servlet.config.annotation.ResourceHandlerRegistry;
import org.springframework.web.servlet.config.annotation.WebMvcConfigurer;

/**
 * Styles, scripts, fonts and pictures, under the addresses they have and no other: every link of a page is looked up
 * among those that may be files, and nearly all links are not.
 */
@Configuration
class StaticFiles implements WebMvcConfigurer {
    /** What runs the CAD kernel, beside the pages, may compile WebAssembly and the calls into it; nothing else may. */
    private static final String KERNEL = "/js/step/worker.js";

    private static final String KERNEL_ONLY =
            "default-src 'none'; script-src 'self' 'wasm-unsafe-eval' 'unsafe-eval'; connect-src 'self'";

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
                .setCacheControl(CacheControl.maxAge(Duration.ofDays(365)))
                .resourceChain(true);
        for (String folder : new String[] {"css", "js", "img", "schemas", "vendor"}) {
            registry.addResourceHandler("/" + folder + "/**")
                    .addResourceLocations("classpath:/static/" + folder + "/")
                    .setCacheControl(CacheControl.noCache());
        }
    }
}
