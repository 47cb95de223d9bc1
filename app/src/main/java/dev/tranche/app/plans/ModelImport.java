package dev.tranche.app.plans;

import dev.tranche.app.jobs.Job;
import dev.tranche.app.jobs.Jobs;
import dev.tranche.app.printers.Workshop;
import dev.tranche.app.shelf.Shelf;
import dev.tranche.app.storage.FileStore;
import dev.tranche.app.storage.TrancheProperties;
import dev.tranche.app.work.ModelCuts;
import dev.tranche.core.format.ModelReader;
import dev.tranche.core.geometry.Placement;
import dev.tranche.core.plan.ColourPlan;
import dev.tranche.core.plan.LayerSettings;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.purge.PurgeSettings;
import dev.tranche.core.units.Progress;
import dev.tranche.core.units.Refusal;
import java.io.IOException;
import java.io.InputStream;
import java.util.List;
import org.springframework.stereotype.Service;
import org.springframework.web.multipart.MultipartFile;

/** From a model file to a plan: kept, read, cut, and given the first spool of the shelf from the bed up. */
@Service
public class ModelImport {
    private final Plans plans;
    private final Shelf shelf;
    private final Workshop workshop;
    private final FileStore files;
    private final ModelCuts cuts;
    private final Jobs jobs;
    private final TrancheProperties properties;

    ModelImport(
            Plans plans,
            Shelf shelf,
            Workshop workshop,
            FileStore files,
            ModelCuts cuts,
            Jobs jobs,
            TrancheProperties properties) {
        this.plans = plans;
        this.shelf = shelf;
        this.workshop = workshop;
        this.files = files;
        this.cuts = cuts;
        this.jobs = jobs;
        this.properties = properties;
    }

    /** Whether a file is a model, by its content. */
    public boolean isModel(MultipartFile file) throws IOException {
        try (InputStream in = file.getInputStream()) {
            return ModelReader.isModel(in.readNBytes(ModelReader.HEAD), file.getSize());
        }
    }

    /** Keeps the file and goes on in the background; ends on the new plan's desk. */
    public Job begin(MultipartFile file) throws IOException {
        List<Spool> spools = shelf.all();
        if (spools.isEmpty()) {
            throw new Refusal("The shelf is empty; add a spool under Shelf, then give the model again.");
        }
        List<Workshop.Machine> machines = workshop.all();
        if (machines.isEmpty()) {
            throw new Refusal("There is no printer yet; add one under Printers, then give the model again.");
        }
        String name = FileNames.shown(file.getOriginalFilename());
        FileStore.Kept kept;
        try (InputStream in = file.getInputStream()) {
            kept = files.keep(in, properties.largestModel());
        }
        PlanState.Model model = new PlanState.Model(kept.hash(), name, kept.size());
        PlanContent content = new PlanContent(
                ColourPlan.of(LayerSettings.COMMON, spools.get(0).id()),
                PurgeSettings.USUAL,
                machines.get(0).id());
        return jobs.start(
                "Reading and cutting " + name,
                progress -> "/plans/" + create(model, content, progress).id());
    }

    private PlanState create(PlanState.Model model, PlanContent content, Progress progress) {
        cuts.mesh(model.hash(), Placement.AS_IS, progress);
        cuts.cut(model.hash(), content.colours().layers(), progress);
        return plans.create(FileNames.stem(model.name()), model, content);
    }
}
