package dev.tranche.app;

import dev.tranche.app.storage.TrancheProperties;
import java.time.Clock;
import java.time.ZoneOffset;
import org.springframework.boot.SpringApplication;
import org.springframework.boot.autoconfigure.SpringBootApplication;
import org.springframework.boot.autoconfigure.mustache.MustacheAutoConfiguration;
import org.springframework.boot.context.properties.EnableConfigurationProperties;
import org.springframework.context.annotation.Bean;
import org.springframework.scheduling.annotation.EnableScheduling;

/** Tranche: plans multicolour prints for printers with one nozzle. */
@SpringBootApplication(exclude = MustacheAutoConfiguration.class)
@EnableConfigurationProperties(TrancheProperties.class)
@EnableScheduling
public class TrancheApplication {
    public static void main(String[] args) {
        SpringApplication.run(TrancheApplication.class, args);
    }

    @Bean
    Clock clock() {
        return Clock.tickMillis(ZoneOffset.UTC);
    }
}
