package dev.tranche.app.backup;

import dev.tranche.app.guide.Guide;
import dev.tranche.app.plans.PlanState;
import dev.tranche.app.plans.Plans;
import dev.tranche.app.printers.Workshop;
import dev.tranche.app.settings.Settings;
import dev.tranche.app.shelf.Shelf;
import dev.tranche.app.storage.FileStore;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.rig.Rack;
import dev.tranche.core.speech.Refusal;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** Reads what a backup brought, as every page will: a plan or a printer may be broken, but not what all of them need. */
@Component
class Proof {
    private static final Logger LOG = LoggerFactory.getLogger(Proof.class);

    private final Settings settings;
    private final Guide guide;
    private final Shelf shelf;
    private final Workshop workshop;
    private final Plans plans;
    private final FileStore files;

    Proof(Settings settings, Guide guide, Shelf shelf, Workshop workshop, Plans plans, FileStore files) {
        this.settings = settings;
        this.guide = guide;
        this.shelf = shelf;
        this.workshop = workshop;
        this.plans = plans;
        this.files = files;
    }

    /** @throws Refusal if something cannot be read, or names what is not there */
    @Transactional(readOnly = true)
    public void read() {
        part("settings", settings::now);
        part("guided start", guide::stage);
        part("shelf", shelf::byId);
        part("printers", () -> workshop.all().forEach(this::printer));
        part("plans", () -> plans.all().forEach(this::plan));
    }

    private static void part(String name, Runnable reading) {
        try {
            reading.run();
        } catch (RuntimeException unreadable) {
            LOG.warn("A backup's {} cannot be read", name, unreadable);
            throw Rows.damaged(name);
        }
    }

    private void printer(Workshop.Machine machine) {
        require(in(machine.rig().rack()));
        require(machine.purges().stream().flatMap(p -> Stream.of(p.out(), p.in())));
    }

    private void plan(PlanState plan) {
        require(plan.content().colours().palette().stream().filter(s -> !s.isMixture()));
        plan.gcode().map(PlanState.Gcode::hash).ifPresent(files::path);
    }

    private static Stream<SpoolId> in(Rack rack) {
        return Stream.concat(
                rack.extruders().stream().flatMap(e -> e.spool().stream()),
                rack.inputs().stream().flatMap(Optional::stream));
    }

    private void require(Stream<SpoolId> named) {
        Set<SpoolId> spools = shelf.byId().keySet();
        named.filter(s -> !spools.contains(s)).findFirst().ifPresent(missing -> {
            throw new IllegalStateException("spool " + missing.value() + " is named and not there");
        });
    }
}
