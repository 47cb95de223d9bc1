package dev.tranche.app;

import org.springframework.boot.SpringApplication;
import org.springframework.boot.autoconfigure.SpringBootApplication;

@SpringBootApplication
public class TrancheApplication {
    public static void main(String[] args) {
        SpringApplication.run(TrancheApplication.class, args);
    }
}
