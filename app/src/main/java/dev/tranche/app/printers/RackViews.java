package dev.tranche.app.printers;

import dev.tranche.app.printers.Workshop.Machine;
import dev.tranche.app.shelf.Shelf;
import dev.tranche.core.colour.Srgb;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.plan.SpoolId;
import dev.tranche.core.rig.Blend;
import dev.tranche.core.rig.Loading;
import dev.tranche.core.rig.Rack;
import dev.tranche.core.rig.VirtualExtruder;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.speech.Words;
import java.time.Clock;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;
import org.springframework.ui.Model;

/** Fills the page of the rack. */
@Component
class RackViews {
    private static final Srgb UNKNOWN = new Srgb(0xB0, 0xB3, 0xB7);

    private final Shelf shelf;
    private final PrintedPlans plans;
    private final RigViews views;
    private final InNozzle nozzles;
    private final Clock clock;

    RackViews(Shelf shelf, PrintedPlans plans, RigViews views, InNozzle nozzles, Clock clock) {
        this.nozzles = nozzles;
        this.clock = clock;
        this.shelf = shelf;
        this.plans = plans;
        this.views = views;
    }

    /** An extruder as a row: what it looks like, and where it disagrees. */
    record Row(int number, VirtualExtruder extruder, Long spool, String hex, Set<String> wrong) {}

    /** What is in each extruder from one swap on. */
    record Stage(String when, int extruder, List<Cell> cells) {}

    /** A spool in an extruder; {@code prints} marks the one that prints. */
    record Cell(String name, String hex, boolean prints, boolean fresh) {}

    void nozzle(long printer, Long spool) {
        if (spool == null) {
            nozzles.forget(printer);
        } else if (shelf.all().stream().anyMatch(s -> s.id().value() == spool)) {
            nozzles.holds(printer, new SpoolId(spool), clock.instant());
        } else {
            throw new Refusal("That spool is no longer on the shelf; reload the page.");
        }
    }

    void rack(Machine machine, Optional<String> chosen, Model model) {
        views.frame(machine, "rack", model);
        views.between(machine.rig(), model);
        Rack rack = machine.rig().rack();
        Map<SpoolId, Spool> spools = shelf.byId();
        List<Rack.Disagreement> wrong = rack.disagreements(machine.printer());
        List<Row> rows = new ArrayList<>();
        for (int t = 0; t < rack.size(); t++) {
            int number = t;
            VirtualExtruder e = rack.extruder(t);
            rows.add(new Row(
                    t,
                    e,
                    e.spool().map(SpoolId::value).orElse(null),
                    colour(rack, e, spools).hex(),
                    wrong.stream()
                            .filter(d -> d.extruder() == number)
                            .map(Rack.Disagreement::what)
                            .collect(Collectors.toSet())));
        }
        List<PrintedPlans.Named> here = plans.on(machine.id());
        Optional<PrintedPlans.Named> plan = here.stream()
                .filter(p -> chosen.isEmpty() || p.id().equals(chosen.get()))
                .findFirst();
        model.addAttribute("rows", rows);
        model.addAttribute(
                "inNozzle", nozzles.of(machine.id()).map(SpoolId::value).orElse(null));
        model.addAttribute("spools", shelf.all());
        model.addAttribute(
                "inputs",
                rack.inputs().stream()
                        .map(i -> i.map(SpoolId::value).orElse(null))
                        .toList());
        model.addAttribute("plans", here);
        model.addAttribute("chosen", plan.map(PrintedPlans.Named::id).orElse(null));
        model.addAttribute(
                "stages",
                plan.flatMap(p -> plans.loaded(p.id())).map(RackViews::stages).orElse(List.of()));
        model.addAttribute(
                "definitions",
                rows.stream()
                        .flatMap(r -> r.extruder().blend().stream().flatMap(b -> b.definition(r.number()).stream()))
                        .toList());
    }

    private static Srgb colour(Rack rack, VirtualExtruder e, Map<SpoolId, Spool> spools) {
        return e.blend()
                .map(b -> b.colour(inputs(rack, b, spools)))
                .orElseGet(() -> e.spool().map(spools::get).map(Spool::colour).orElse(UNKNOWN));
    }

    private static List<Srgb> inputs(Rack rack, Blend blend, Map<SpoolId, Spool> spools) {
        List<Srgb> colours = new ArrayList<>();
        for (int i = 0; i < blend.weights().size(); i++) {
            colours.add(
                    i < rack.inputs().size()
                            ? rack.inputs()
                                    .get(i)
                                    .map(spools::get)
                                    .map(Spool::colour)
                                    .orElse(UNKNOWN)
                            : UNKNOWN);
        }
        return colours;
    }

    /** As the plan's ledger has it, layer by layer. */
    private static List<Stage> stages(PrintedPlans.Loaded loaded) {
        List<Stage> stages = new ArrayList<>();
        for (Loading.Stage stage : loaded.loading().stages()) {
            List<Cell> cells = new ArrayList<>();
            for (int t = 0; t < stage.contents().size(); t++) {
                Optional<Spool> spool = stage.contents().get(t).map(loaded.spools()::get);
                boolean prints = t == stage.extruder();
                cells.add(new Cell(
                        spool.map(Spool::name).orElse(""),
                        spool.map(s -> s.colour().hex()).orElse(""),
                        prints,
                        prints && stage.fresh()));
            }
            int swap = stages.size();
            String when = swap == 0
                    ? "start"
                    : Words.format(
                            "swap %d, layer %d", swap, loaded.swapLayers().get(swap - 1));
            stages.add(new Stage(when, stage.extruder(), cells));
        }
        return stages;
    }
}
