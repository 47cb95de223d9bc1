package dev.tranche.app.api;

import dev.tranche.app.exchange.ModelImport;
import dev.tranche.app.handoff.FileEdits;
import dev.tranche.app.plans.PlanContent;
import dev.tranche.app.plans.PlanState;
import dev.tranche.app.plans.Plans;
import dev.tranche.app.printers.Workshop;
import dev.tranche.app.shelf.Shelf;
import dev.tranche.app.storage.FileStore;
import dev.tranche.app.work.Workbench;
import dev.tranche.app.work.Workpiece;
import dev.tranche.core.layer.LayerGrid;
import dev.tranche.core.plan.ColourPlan;
import dev.tranche.core.plan.LayerSettings;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.speech.Words;
import dev.tranche.core.units.Height;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.List;
import org.springframework.stereotype.Component;
import org.springframework.transaction.PlatformTransactionManager;
import org.springframework.transaction.support.TransactionTemplate;
import org.springframework.web.multipart.MultipartFile;

/** Makes a plan of what was sent, looks at it, and takes everything back: what was written, and the files. */
@Component
class Attempt {
    private final Plans plans;
    private final ModelImport models;
    private final Workbench workbench;
    private final Workshop workshop;
    private final Shelf shelf;
    private final FileStore files;
    private final FileEdits edits;
    private final TransactionTemplate transaction;

    Attempt(
            Plans plans,
            ModelImport models,
            Workbench workbench,
            Workshop workshop,
            Shelf shelf,
            FileStore files,
            FileEdits edits,
            PlatformTransactionManager transactions) {
        this.plans = plans;
        this.models = models;
        this.workbench = workbench;
        this.workshop = workshop;
        this.shelf = shelf;
        this.files = files;
        this.edits = edits;
        this.transaction = new TransactionTemplate(transactions);
    }

    /** What is to be made of a model; nothing where the usual will do. */
    record Wishes(String first, String layer, List<String> colours, String printer, Integer copies) {
        static final Wishes NONE = new Wishes(null, null, null, null, null);
    }

    /** What is wanted of the plan, while it is there. */
    interface Eye<T> {
        T see(Workpiece work) throws IOException;
    }

    /**
     * Looks at the plan that {@code file} is, or that {@code wishes} make of it, with {@code gcode} if there is one.
     *
     * @param accept keys of findings that are known and accepted
     */
    <T> T look(MultipartFile file, Wishes wishes, MultipartFile gcode, List<String> accept, Eye<T> eye) {
        try (FileStore.Loan loan = files.lend()) {
            return transaction.execute(status -> {
                status.setRollbackOnly();
                try {
                    Workpiece work = workbench.openNow(plan(file, wishes, gcode));
                    if (!accept.isEmpty()) {
                        edits.accept(work, accept);
                        work = workbench.openNow(plans.get(work.plan().id()));
                    }
                    return eye.see(work);
                } catch (IOException e) {
                    throw new UncheckedIOException(e);
                }
            });
        }
    }

    private PlanState plan(MultipartFile file, Wishes wishes, MultipartFile gcode) throws IOException {
        PlanState plan = models.isPlanFile(file) ? models.read(file) : wished(models.make(file), wishes);
        if (gcode != null) {
            models.giveGcode(plan, gcode);
        }
        return plans.get(plan.id());
    }

    private PlanState wished(PlanState plan, Wishes wishes) {
        LayerSettings now = plan.content().colours().layers();
        LayerSettings layers = now.withLayers(
                wishes.first() == null ? now.firstLayer() : Height.parse(wishes.first()),
                wishes.layer() == null ? now.layerHeight() : Height.parse(wishes.layer()));
        PlanContent content = plan.content().with(plan.content().colours().withLayers(layers));
        if (wishes.printer() != null) {
            content = content.on(printer(wishes.printer()));
        }
        if (wishes.copies() != null) {
            content = content.times(wishes.copies());
        }
        LayerGrid grid = models.grid(content);
        ColourPlan colours = content.colours();
        for (String start : wishes.colours() == null ? List.<String>of() : wishes.colours()) {
            colours = started(colours, start, grid);
        }
        PlanContent wished = content.with(colours);
        return plans.editAll(plan.id(), plan.edition(), "as wished", c -> wished);
    }

    /** {@code height=spool} or {@code layer=spool}, as at the desk; at 0 it is the colour from the bed up. */
    private ColourPlan started(ColourPlan colours, String start, LayerGrid grid) {
        String[] parts = start.split("=", 2);
        if (parts.length < 2) {
            throw Refusal.of(
                    "“%s” is not a colour; give a height and a spool, such as 2.0=Chalk or L41=Chalk.",
                    Words.quoted(start));
        }
        Spool spool = shelf.all().stream()
                .filter(s -> s.name().equalsIgnoreCase(parts[1].strip()))
                .findFirst()
                .orElseThrow(() -> Refusal.of("There is no spool “%s” on the shelf.", Words.quoted(parts[1])));
        Height height = grid.startFrom(parts[0]);
        return height.equals(Height.ZERO) ? colours.recolour(0, spool.id()) : colours.startAt(height, spool.id(), grid);
    }

    private long printer(String name) {
        return workshop.all().stream()
                .filter(m -> m.printer().name().equalsIgnoreCase(name.strip()))
                .map(Workshop.Machine::id)
                .findFirst()
                .orElseThrow(() -> Refusal.of("There is no printer “%s” here.", Words.quoted(name)));
    }
}
