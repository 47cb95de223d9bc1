package dev.tranche.app.storage;

import jakarta.servlet.MultipartConfigElement;
import org.springframework.boot.autoconfigure.web.servlet.MultipartProperties;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;

/** Where what is sent lies while it comes in. */
@Configuration(proxyBeanMethods = false)
class Uploads {
    @Bean
    MultipartConfigElement parts(MultipartProperties properties, TemporaryFiles temporary) {
        properties.setLocation(temporary.folder().toString());
        return properties.createMultipartConfig();
    }
}
