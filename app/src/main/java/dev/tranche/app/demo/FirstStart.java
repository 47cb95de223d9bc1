package dev.tranche.app.demo;

import dev.tranche.app.printers.Workshop;
import dev.tranche.app.shelf.Shelf;
import dev.tranche.core.colour.Srgb;
import dev.tranche.core.plan.Material;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.rig.Beginning;
import java.math.BigDecimal;
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
        workshop.add(Beginning.DIRECT_PAUSE.rig("My printer"));
        shelf.add(spool("Dark", "#26272A"));
        shelf.add(spool("Light", "#F2F1EC"));
    }

    private static Spool spool(String name, String colour) {
        return new Spool(
                new SpoolId(0),
                name,
                Material.PLA,
                Srgb.parse(colour),
                Material.PLA.density(),
                BigDecimal.valueOf(20),
                210,
                205,
                1000);
    }
}
