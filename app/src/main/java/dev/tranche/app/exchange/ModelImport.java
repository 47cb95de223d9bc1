package dev.tranche.app.exchange;

import dev.tranche.app.jobs.Job;
import dev.tranche.app.jobs.Jobs;
import dev.tranche.app.plans.ModelFile;
import dev.tranche.app.plans.PlanContent;
import dev.tranche.app.plans.PlanState;
import dev.tranche.app.plans.Plans;
import dev.tranche.app.printers.Workshop;
import dev.tranche.app.shelf.Shelf;
import dev.tranche.app.storage.FileNames;
import dev.tranche.app.storage.FileStore;
import dev.tranche.app.storage.TrancheProperties;
import dev.tranche.app.work.ModelCuts;
import dev.tranche.core.format.ModelReader;
import dev.tranche.core.format.Part;
import dev.tranche.core.layer.LayerGrid;
import dev.tranche.core.plan.ColourPlan;
import dev.tranche.core.plan.LayerSettings;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.purge.PurgeSettings;
import dev.tranche.core.speech.Progress;
import dev.tranche.core.speech.Refusal;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.springframework.stereotype.Service;
import org.springframework.web.multipart.MultipartFile;

/** From a model file to a plan: kept, read, cut, and given the first spool of the shelf from the bed up. */
@Service
public class ModelImport {
    private static final int MOST_FILES = 20;
    /** s */
    private static final int PATIENCE = 300;

    private final Plans plans;
    private final Shelf shelf;
    private final Workshop workshop;
    private final FileStore files;
    private final ModelCuts cuts;
    private final Jobs jobs;
    private final TrancheProperties properties;
    private final FileColours fileColours;
    private final PlanFileReader planFiles;

    ModelImport(
            Plans plans,
            Shelf shelf,
            Workshop workshop,
            FileStore files,
            ModelCuts cuts,
            Jobs jobs,
            TrancheProperties properties,
            FileColours fileColours,
            PlanFileReader planFiles) {
        this.plans = plans;
        this.shelf = shelf;
        this.workshop = workshop;
        this.files = files;
        this.cuts = cuts;
        this.jobs = jobs;
        this.properties = properties;
        this.fileColours = fileColours;
        this.planFiles = planFiles;
    }

    /** Whether a file is a model, by its content. */
    public boolean isModel(MultipartFile file) throws IOException {
        try (InputStream in = file.getInputStream()) {
            return ModelReader.isModel(in.readNBytes(ModelReader.HEAD), file.getSize());
        }
    }

    /** Reads a plan file in the background; ends on its desk. */
    public Job open(MultipartFile file) throws IOException {
        Path copy = Files.createTempFile(properties.data(), "plan-file-", ".part");
        file.transferTo(copy);
        return jobs.start("Reading " + FileNames.shown(file.getOriginalFilename()), progress -> {
            try (InputStream in = Files.newInputStream(copy);
                    FileStore.Loan loan = files.lend()) {
                String id = planFiles.read(in).id();
                loan.keep();
                return "/plans/" + id;
            } finally {
                Files.deleteIfExists(copy);
            }
        });
    }

    /** As {@link #open}, at once. */
    public PlanState read(MultipartFile file) throws IOException {
        try (InputStream in = file.getInputStream()) {
            return planFiles.read(in);
        }
    }

    /** As {@link #begin}, at once. */
    public PlanState make(MultipartFile file) throws IOException {
        PlanContent content = content(List.of(file), new ArrayList<>());
        jobs.await("Reading " + content.files().get(0).name(), PATIENCE, progress -> cuts.cut(content, progress));
        return create(content, Progress.UNHEARD);
    }

    /** Gives a plan a sliced file, unread. */
    public void giveGcode(PlanState plan, MultipartFile file) throws IOException {
        try (InputStream in = file.getInputStream()) {
            FileStore.Kept kept = files.keep(in, properties.largestGcode());
            plans.giveGcode(plan.id(), new PlanState.Gcode(kept.hash(), FileNames.shown(file.getOriginalFilename())));
        }
    }

    public LayerGrid grid(PlanContent content) {
        return cuts.grid(content);
    }

    /** Whether a file is a plan with all it needs. */
    public boolean isPlanFile(MultipartFile file) throws IOException {
        try (InputStream in = file.getInputStream()) {
            return planFiles.isPlanFile(in);
        }
    }

    /** Keeps the files and goes on in the background; ends on the new plan's desk. */
    public Job begin(List<MultipartFile> given) throws IOException {
        List<FileStore.Kept> kept = new ArrayList<>();
        try {
            PlanContent content = content(given, kept);
            return jobs.start(
                    "Reading and cutting " + content.files().get(0).name(),
                    orTakenBack(
                            kept,
                            progress -> "/plans/" + create(content, progress).id()));
        } catch (Refusal | IOException e) {
            kept.forEach(files::takeBack);
            throw e;
        }
    }

    /** What comes to nothing leaves no files behind. */
    private Job.Work orTakenBack(List<FileStore.Kept> kept, Job.Work work) {
        return progress -> {
            try {
                return work.run(progress);
            } catch (Exception | Error e) {
                kept.forEach(files::takeBack);
                throw e;
            }
        };
    }

    private PlanContent content(List<MultipartFile> given, List<FileStore.Kept> keeping) throws IOException {
        List<Spool> spools = shelf.all();
        if (spools.isEmpty()) {
            throw new Refusal("The shelf is empty; add a spool under Shelf, then give the model again.");
        }
        List<Workshop.Machine> machines = workshop.all();
        if (machines.isEmpty()) {
            throw new Refusal("There is no printer yet; add one under Printers, then give the model again.");
        }
        if (given.isEmpty() || given.size() > MOST_FILES) {
            throw Refusal.of("A plan takes 1 to %d files, and %d were given; choose fewer.", MOST_FILES, given.size());
        }
        List<ModelFile> kept = new ArrayList<>();
        for (MultipartFile file : given) {
            kept.add(keep(file, keeping));
        }
        ColourPlan colours = ColourPlan.of(LayerSettings.COMMON, spools.get(0).id());
        return new PlanContent(
                kept, colours, PurgeSettings.USUAL, machines.get(0).id());
    }

    private PlanState create(PlanContent content, Progress progress) {
        List<Part> parts = cuts.model(content.files(), progress).parts();
        PlanContent coloured = content.with(fileColours.begin(content.colours(), parts));
        cuts.cut(coloured, progress);
        return plans.create(FileNames.stem(content.files().get(0).name()), coloured);
    }

    /** Adds a file to a plan, aligned by its own origin. */
    public Job add(PlanState plan, long seen, MultipartFile file) throws IOException {
        if (plan.content().files().size() >= MOST_FILES) {
            throw Refusal.of("A plan takes at most %d files.", MOST_FILES);
        }
        List<FileStore.Kept> keeping = new ArrayList<>();
        ModelFile kept = keep(file, keeping);
        return jobs.start("Reading " + kept.name(), orTakenBack(keeping, progress -> {
            int before = cuts.model(plan.content().files(), progress).parts().size();
            PlanContent more = plan.content().plus(kept);
            List<Part> all = cuts.model(more.files(), progress).parts();
            cuts.cut(more, progress);
            plans.editAll(plan.id(), seen, "add " + kept.name(), c -> c.plus(kept)
                    .with(fileColours.add(c.colours(), all.subList(before, all.size()), before)));
            return "/plans/" + plan.id() + "?side=parts";
        }));
    }

    private ModelFile keep(MultipartFile file, List<FileStore.Kept> keeping) throws IOException {
        try (InputStream in = file.getInputStream()) {
            FileStore.Kept kept = files.keep(in, properties.largestModel());
            keeping.add(kept);
            return new ModelFile(kept.hash(), FileNames.shown(file.getOriginalFilename()), kept.size());
        }
    }
}
