package dev.tranche.app;

import dev.tranche.app.backup.Courier;
import dev.tranche.app.storage.DataFolder;
import dev.tranche.app.storage.TrancheProperties;
import java.io.IOException;
import java.nio.file.Path;
import java.time.Clock;
import java.time.ZoneOffset;
import org.springframework.boot.SpringApplication;
import org.springframework.boot.autoconfigure.SpringBootApplication;
import org.springframework.boot.autoconfigure.mustache.MustacheAutoConfiguration;
import org.springframework.boot.context.properties.EnableConfigurationProperties;
import org.springframework.context.ApplicationListener;
import org.springframework.context.annotation.Bean;
import org.springframework.context.event.ContextClosedEvent;
import org.springframework.scheduling.annotation.EnableScheduling;

/** Tranche: plans multicolour prints for printers with one nozzle. */
@SpringBootApplication(exclude = MustacheAutoConfiguration.class)
@EnableConfigurationProperties(TrancheProperties.class)
@EnableScheduling
public class TrancheApplication {
    public static void main(String[] args) throws IOException, InterruptedException {
        if (Courier.isMeant(args)) {
            System.exit(Courier.run(args));
        }
        try {
            application().run(args);
            Thread.setDefaultUncaughtExceptionHandler(new FreshStart(Runtime.getRuntime()::halt));
        } catch (DataFolder.CannotStart said) {
            System.exit(1);
        }
    }

    /** An application that takes its data folder before anything else, and leaves it when it is closed. */
    static SpringApplication application() {
        SpringApplication application = new SpringApplication(TrancheApplication.class);
        application.addInitializers(context -> {
            DataFolder folder =
                    DataFolder.claim(Path.of(context.getEnvironment().getRequiredProperty("tranche.data")));
            context.addApplicationListener((ApplicationListener<ContextClosedEvent>) closed -> {
                if (closed.getApplicationContext() == context) {
                    folder.close();
                }
            });
        });
        return application;
    }

    @Bean
    Clock clock() {
        return Clock.tickMillis(ZoneOffset.UTC);
    }
}
