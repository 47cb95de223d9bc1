package dev.tranche.app.demo;

import dev.tranche.app.guide.Guide;
import dev.tranche.app.printers.Workshop;
import dev.tranche.app.shelf.Shelf;
import dev.tranche.core.colour.Srgb;
import dev.tranche.core.plan.Material;
import dev.tranche.core.plan.Spool;
import org.springframework.boot.ApplicationArguments;
import org.springframework.boot.ApplicationRunner;
import org.springframework.core.env.Environment;
import org.springframework.stereotype.Component;

/** On the very first start with one's own data: a printer and two spools to correct, so that a plan can begin. */
@Component
class FirstStart implements ApplicationRunner {
    private final Shelf shelf;
    private final Workshop workshop;
    private final Environment environment;

    FirstStart(Shelf shelf, Workshop workshop, Environment environment) {
        this.environment = environment;
        this.shelf = shelf;
        this.workshop = workshop;
    }

    @Override
    public void run(ApplicationArguments arguments) {
        if (environment.matchesProfiles("demo")
                || !shelf.byId().isEmpty()
                || !workshop.all().isEmpty()) {
            return;
        }
        workshop.add(Guide.FIRST_PRINTER);
        shelf.add(Spool.full("Dark", Material.PLA, Srgb.parse("#26272A")));
        shelf.add(Spool.full("Light", Material.PLA, Srgb.parse("#F2F1EC")));
    }
}
