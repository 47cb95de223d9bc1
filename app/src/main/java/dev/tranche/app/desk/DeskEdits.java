package dev.tranche.app.desk;

import dev.tranche.app.plans.PlanState;
import dev.tranche.app.plans.Plans;
import dev.tranche.app.printers.Workshop;
import dev.tranche.app.web.Numbers;
import dev.tranche.app.work.ModelCuts;
import dev.tranche.app.work.Workpiece;
import dev.tranche.core.estimate.PrintSettings;
import dev.tranche.core.geometry.Body;
import dev.tranche.core.geometry.Placement;
import dev.tranche.core.layer.Flat;
import dev.tranche.core.layer.LayerGrid;
import dev.tranche.core.look.Flooring;
import dev.tranche.core.plan.Halt;
import dev.tranche.core.plan.LayerSettings;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.purge.PurgeSettings;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.speech.Words;
import dev.tranche.core.units.Height;
import java.util.List;
import org.locationtech.jts.geom.Envelope;
import org.springframework.stereotype.Service;

/** What people type and choose at the desk, as edits of a plan with a name for undo. */
@Service
class DeskEdits {
    private final Plans plans;
    private final Choices choices;
    private final Workshop workshop;
    private final ModelCuts cuts;

    DeskEdits(Plans plans, Choices choices, Workshop workshop, ModelCuts cuts) {
        this.plans = plans;
        this.choices = choices;
        this.workshop = workshop;
        this.cuts = cuts;
    }

    PlanState start(Shown at, String height, long spool) {
        LayerGrid grid = grid(plans.get(at.id()));
        Height from = grid.startFrom(height);
        Spool chosen = choices.get(plans.get(at.id()), spool);
        return plans.edit(
                at.id(),
                at.edition(),
                "start " + chosen.name() + " at " + from + " mm",
                p -> p.startAt(from, chosen.id(), grid));
    }

    PlanState colourFlat(Shown at, Workpiece work, int layer, long spool) {
        List<Flat> flats = work.colouring().outlooks().flats();
        Flat flat = flats.stream()
                .filter(f -> f.layer() == layer)
                .findFirst()
                .orElseThrow(() -> Refusal.of("The model is not flat on layer %d any more; reload the page.", layer));
        Spool chosen = choices.get(plans.get(at.id()), spool);
        Flooring floor = Flooring.of(work.colouring(), flats, flat, chosen, work.shelf());
        return plans.edit(
                at.id(),
                at.edition(),
                Words.format("colour the %s at %s mm %s", flat.form().word(), flat.height(), chosen.name()),
                p -> floor.on(p, chosen.id(), work.grid()));
    }

    PlanState move(Shown at, int index, String height) {
        LayerGrid grid = grid(plans.get(at.id()));
        Height to = grid.startFrom(height);
        return plans.edit(at.id(), at.edition(), "move a border to " + to + " mm", p -> p.move(index, to, grid));
    }

    PlanState recolour(Shown at, int index, long spool) {
        Spool chosen = choices.get(plans.get(at.id()), spool);
        return plans.edit(at.id(), at.edition(), "recolour to " + chosen.name(), p -> p.recolour(index, chosen.id()));
    }

    /** The band that covers {@code layer}. */
    PlanState recolourAt(Shown at, Workpiece work, int layer, long spool) {
        if (layer < 1 || layer > work.grid().count()) {
            throw Refusal.of(
                    "The print has layers 1 to %d; there is no layer %d.",
                    work.grid().count(), layer);
        }
        return recolour(at, work.trancheOf(layer).index(), spool);
    }

    PlanState merge(Shown at, int index) {
        return plans.edit(at.id(), at.edition(), "merge two colours", p -> p.merge(index));
    }

    PlanState halt(Shown at, String height, String note) {
        LayerGrid grid = grid(plans.get(at.id()));
        Halt halt = new Halt(grid.startFrom(height), note);
        return plans.edit(at.id(), at.edition(), "halt at " + halt.wished() + " mm", p -> p.haltAt(halt, grid));
    }

    PlanState removeHalt(Shown at, int index) {
        return plans.edit(at.id(), at.edition(), "remove a halt", p -> p.withoutHalt(index));
    }

    PlanState layers(Shown at, String first, String height, String raft, String shrink) {
        LayerSettings settings = new LayerSettings(
                Height.parse(first),
                Height.parse(height),
                Height.parse(raft),
                Numbers.decimal("width by which the first layer is drawn in", shrink));
        cuts.grid(plans.get(at.id()).content(), settings);
        String label = "layers of " + settings.firstLayer() + " and " + settings.layerHeight() + " mm";
        return plans.edit(at.id(), at.edition(), label, p -> p.withLayers(settings));
    }

    /** Every border where it prints, so that nothing snaps any more. */
    PlanState ontoGrid(Shown at) {
        LayerGrid grid = grid(plans.get(at.id()));
        return plans.edit(at.id(), at.edition(), "move all borders onto the layers", p -> p.ontoGrid(grid));
    }

    PlanState place(Shown at, PlacementForm form) {
        PlanState plan = plans.get(at.id());
        Placement before = plan.content().placement();
        Body drawn = cuts.modelAtHand(plan.content().files()).body();
        Envelope box = drawn.footprint();
        Placement placement = form.on(
                before,
                new PlacementForm.Size(
                        box.getWidth() * before.scaleX(),
                        box.getHeight() * before.scaleY(),
                        drawn.height().millimetres() * before.scaleZ()));
        cuts.bodyAtHand(plan.content().with(placement));
        return plans.editAll(at.id(), at.edition(), "scale or turn the model", c -> c.with(placement));
    }

    PlanState lay(Shown at, double x, double y, double z) {
        return plans.editAll(
                at.id(),
                at.edition(),
                "lay the model on another side",
                c -> c.with(c.placement().layingOn(x, y, z)));
    }

    PlanState flip(Shown at) {
        return plans.editAll(
                at.id(),
                at.edition(),
                "turn the model upside down",
                c -> c.with(c.placement().flipped()));
    }

    PlanState printOn(Shown at, long printer) {
        String label = "print on " + workshop.get(printer).printer().name();
        return plans.editAll(at.id(), at.edition(), label, c -> c.on(printer));
    }

    PlanState purge(Shown at, String tolerance, String factor) {
        double clean = Numbers.decimal("colour tolerance", tolerance);
        double times = Numbers.decimal("purge factor", factor);
        String label = "purge to a difference of " + tolerance.strip() + ", times " + factor.strip();
        return plans.editAll(
                at.id(),
                at.edition(),
                label,
                c -> c.with(new PurgeSettings(clean, times, c.purge().place())));
    }

    PlanState filling(Shown at, String walls, String solid, String infill) {
        PrintSettings settings = new PrintSettings(
                Numbers.whole("number of walls", walls),
                Numbers.whole("number of solid layers", solid),
                Numbers.decimal("infill", infill) / 100);
        return plans.editAll(at.id(), at.edition(), "reckon with " + settings.words(), c -> c.with(settings));
    }

    PlanState copies(Shown at, String text) {
        int copies = Numbers.whole("number of copies", text);
        return plans.editAll(
                at.id(),
                at.edition(),
                "print " + (copies == 1 ? "one copy" : copies + " copies"),
                c -> c.times(copies));
    }

    /** The layer a typed height falls on, for the cursor to go to. */
    int layerOf(PlanState plan, String height) {
        LayerGrid grid = grid(plan);
        return grid.snap(grid.startFrom(height)).layer();
    }

    private LayerGrid grid(PlanState plan) {
        return cuts.grid(plan.content());
    }
}
