package dev.tranche.app.web;

import java.time.Duration;
import org.springframework.context.annotation.Configuration;
import org.springframework.http.CacheControl;
import org.springframework.web.servlet.config.annotation.ResourceHandlerRegistry;
import org.springframework.web.servlet.config.annotation.WebMvcConfigurer;

/**
 * Styles, scripts, fonts and pictures, under the addresses they have and no other: every link of a page is looked up
 * among those that may be files, and nearly all links are not.
 */
@Configuration
class StaticFiles implements WebMvcConfigurer {
    @Override
    public void addResourceHandlers(ResourceHandlerRegistry registry) {
        registry.addResourceHandler("/webjars/**")
                .addResourceLocations("classpath:/META-INF/resources/webjars/")
                // Their addresses hold their versions.
                .setCacheControl(CacheControl.maxAge(Duration.ofDays(365)))
                .resourceChain(true);
        for (String folder : new String[] {"css", "js", "img", "schemas"}) {
            registry.addResourceHandler("/" + folder + "/**")
                    .addResourceLocations("classpath:/static/" + folder + "/")
                    .setCacheControl(CacheControl.noCache());
        }
    }
}
