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
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** Reads what a backup brought, as every page will: a plan or a printer may be broken, but not what all of them need. */
@Component
class Proof {
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

    /** @throws RuntimeException if something cannot be read, or names what is not there */
    @Transactional(readOnly = true)
    public void read() {
        settings.now();
        guide.stage();
        Set<SpoolId> spools = shelf.byId().keySet();
        workshop.all().forEach(machine -> {
            require(spools, in(machine.rig().rack()));
            require(spools, machine.purges().stream().flatMap(p -> Stream.of(p.out(), p.in())));
        });
        plans.all().forEach(plan -> {
            require(spools, plan.content().colours().palette().stream().filter(s -> !s.isMixture()));
            plan.gcode().map(PlanState.Gcode::hash).ifPresent(files::path);
        });
    }

    private static Stream<SpoolId> in(Rack rack) {
        return Stream.concat(
                rack.extruders().stream().flatMap(e -> e.spool().stream()),
                rack.inputs().stream().flatMap(Optional::stream));
    }

    private static void require(Set<SpoolId> spools, Stream<SpoolId> named) {
        named.filter(s -> !spools.contains(s)).findFirst().ifPresent(missing -> {
            throw new IllegalStateException("it names spool " + missing.value() + ", which it does not hold");
        });
    }
}
