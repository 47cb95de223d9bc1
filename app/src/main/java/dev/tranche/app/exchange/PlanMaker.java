package dev.tranche.app.exchange;

import dev.tranche.app.plans.ModelFile;
import dev.tranche.app.plans.PlanContent;
import dev.tranche.app.plans.PlanState;
import dev.tranche.app.plans.Plans;
import dev.tranche.app.printers.Workshop;
import dev.tranche.app.shelf.Shelf;
import dev.tranche.app.storage.FileNames;
import dev.tranche.app.work.ModelCuts;
import dev.tranche.core.format.Part;
import dev.tranche.core.geometry.Placement;
import dev.tranche.core.plan.ColourPlan;
import dev.tranche.core.plan.LayerSettings;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.purge.PurgeSettings;
import dev.tranche.core.speech.Progress;
import dev.tranche.core.speech.Refusal;
import java.util.List;
import org.springframework.stereotype.Service;

/** Makes a plan of model files: cut, and given the first spool of the shelf from the bed up, or the colours the files name. */
@Service
class PlanMaker {
    static final int MOST_FILES = 20;

    private final Plans plans;
    private final Shelf shelf;
    private final Workshop workshop;
    private final ModelCuts cuts;
    private final FileColours fileColours;
    private final Coats coats;

    PlanMaker(Plans plans, Shelf shelf, Workshop workshop, ModelCuts cuts, FileColours fileColours, Coats coats) {
        this.plans = plans;
        this.shelf = shelf;
        this.workshop = workshop;
        this.cuts = cuts;
        this.fileColours = fileColours;
        this.coats = coats;
    }

    /** @throws Refusal if there is no spool or no printer yet */
    PlanContent content(List<ModelFile> files) {
        List<Spool> spools = shelf.all();
        if (spools.isEmpty()) {
            throw new Refusal("The shelf is empty; add a spool under Shelf, then give the model again.");
        }
        List<Workshop.Machine> machines = workshop.all();
        if (machines.isEmpty()) {
            throw new Refusal("There is no printer yet; add one under Printers, then give the model again.");
        }
        ColourPlan colours = ColourPlan.of(LayerSettings.COMMON, spools.get(0).id());
        return new PlanContent(
                files, colours, PurgeSettings.USUAL, usual(machines).id());
    }

    /** The printer that was planned for last, or else the one set up last. */
    private Workshop.Machine usual(List<Workshop.Machine> machines) {
        return plans.lastPrinters().stream()
                .flatMap(id -> machines.stream().filter(m -> m.id() == id))
                .findFirst()
                .orElse(machines.get(machines.size() - 1));
    }

    /** @throws Refusal if so many files make no plan */
    static void requireRoom(int number) {
        if (number < 1 || number > MOST_FILES) {
            throw Refusal.of("A plan takes 1 to %d files, and %d were given; choose fewer.", MOST_FILES, number);
        }
    }

    PlanState create(PlanContent content, Progress progress) {
        return create(name(content), content, progress);
    }

    PlanState create(String name, PlanContent content, Progress progress) {
        PlanContent coloured = coloured(content, progress);
        return plans.create(name, Coats.with(coloured, coats.begin(coloured, 0, progress)));
    }

    /** As {@link #create(PlanContent, Progress)}, for requests; the model is cut already. */
    PlanState createNow(PlanContent content) {
        PlanContent coloured = coloured(content, Progress.UNHEARD);
        return plans.create(name(content), Coats.with(coloured, coats.atHand(coloured)));
    }

    private PlanContent coloured(PlanContent content, Progress progress) {
        List<Part> parts = cuts.model(content.files(), progress).parts();
        PlanContent held = held(content, progress);
        return held.with(fileColours.begin(held.colours(), parts));
    }

    /** As large as a bed can hold it, and cut. */
    PlanContent held(PlanContent content, Progress progress) {
        double longest = cuts.model(content.files(), progress).body().longest();
        PlanContent held = content.with(Placement.AS_IS.toBeHeldByABed(longest));
        cuts.cut(held, progress);
        return held;
    }

    private static String name(PlanContent content) {
        return FileNames.stem(content.files().get(0).name());
    }
}
