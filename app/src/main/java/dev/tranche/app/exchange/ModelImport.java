package dev.tranche.app.exchange;

import dev.tranche.app.drawing.MeshPainter;
import dev.tranche.app.jobs.Job;
import dev.tranche.app.jobs.Jobs;
import dev.tranche.app.plans.ModelFile;
import dev.tranche.app.plans.PartNotes;
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
import dev.tranche.core.format.PartedModel;
import dev.tranche.core.geometry.Body;
import dev.tranche.core.geometry.Mesh;
import dev.tranche.core.geometry.Shift;
import dev.tranche.core.layer.LayerGrid;
import dev.tranche.core.plan.ColourPlan;
import dev.tranche.core.plan.LayerSettings;
import dev.tranche.core.plan.Spool;
import dev.tranche.core.purge.PurgeSettings;
import dev.tranche.core.speech.Progress;
import dev.tranche.core.speech.Refusal;
import dev.tranche.core.speech.Words;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Supplier;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.springframework.stereotype.Service;
import org.springframework.web.multipart.MultipartFile;

/** From a model file to a plan: kept, read, cut, and given the first spool of the shelf from the bed up. */
@Service
public class ModelImport {
    private static final int MOST_FILES = 20;
    /** Things of one file that are offered one by one. */
    private static final int MOST_OFFERED = 60;
    /** s */
    private static final int PATIENCE = 300;
    /** px */
    private static final int PICTURE_WIDTH = 240;

    private static final int PICTURE_HEIGHT = 170;

    private final Plans plans;
    private final Shelf shelf;
    private final Workshop workshop;
    private final FileStore files;
    private final ModelCuts cuts;
    private final Jobs jobs;
    private final TrancheProperties properties;
    private final FileColours fileColours;
    private final PlanFileReader planFiles;
    private final Offers offers;

    ModelImport(
            Plans plans,
            Shelf shelf,
            Workshop workshop,
            FileStore files,
            ModelCuts cuts,
            Jobs jobs,
            TrancheProperties properties,
            FileColours fileColours,
            PlanFileReader planFiles,
            Offers offers) {
        this.offers = offers;
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
        PlanContent content = content(List.of(keep(file, new ArrayList<>())));
        jobs.await("Reading " + content.files().get(0).name(), PATIENCE, progress -> cuts.cut(content, progress));
        return create(content, Progress.UNHEARD);
    }

    /** Gives a plan a sliced file, unread. */
    public void giveGcode(PlanState plan, MultipartFile file) throws IOException {
        try (InputStream in = file.getInputStream()) {
            giveGcode(plan, in, FileNames.shown(file.getOriginalFilename()));
        }
    }

    public void giveGcode(PlanState plan, InputStream gcode, String name) throws IOException {
        FileStore.Kept kept = files.keep(gcode, properties.largestGcode());
        plans.giveGcode(plan.id(), new PlanState.Gcode(kept.hash(), name));
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

    /**
     * Keeps the files and goes on in the background; ends on the new plan's desk, or, where archives hold several models,
     * where one chooses among them.
     */
    public Job begin(List<MultipartFile> given) throws IOException {
        requireRoom(given.size());
        List<FileStore.Kept> kept = new ArrayList<>();
        List<Path> archives = new ArrayList<>();
        try {
            List<ModelFile> plain = new ArrayList<>();
            for (MultipartFile file : given) {
                archive(file).ifPresentOrElse(archives::add, () -> plain.add(keepUnchecked(file, kept)));
            }
            if (archives.isEmpty()) {
                PlanContent content = content(plain);
                return jobs.start(
                        "Reading and cutting " + plain.get(0).name(),
                        orTakenBack(kept, progress -> begun(content, progress)));
            }
            String name = FileNames.shown(given.get(0).getOriginalFilename());
            return jobs.start(
                    "Unpacking " + name,
                    orTakenBack(kept, progress -> unpacked(name, plain, archives, kept, progress)));
        } catch (Refusal | IOException e) {
            kept.forEach(files::takeBack);
            delete(archives);
            throw e;
        } catch (UncheckedIOException e) {
            kept.forEach(files::takeBack);
            delete(archives);
            throw e.getCause();
        }
    }

    /** What is done with a plan that has just begun. */
    public interface Then {
        void with(PlanState plan, Progress progress) throws IOException;
    }

    /** A plan of a model that nobody had to give; ends on its desk. */
    public Job begin(String name, Supplier<byte[]> model, Then then) {
        return jobs.start("Reading and cutting " + name, progress -> {
            FileStore.Kept kept = files.keep(new ByteArrayInputStream(model.get()), properties.largestModel());
            PlanState plan = create(content(List.of(new ModelFile(kept.hash(), name, kept.size()))), progress);
            then.with(plan, progress);
            return "/plans/" + plan.id();
        });
    }

    private ModelFile keepUnchecked(MultipartFile file, List<FileStore.Kept> kept) {
        try {
            return keep(file, kept);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** A copy of a file that is an archive of models. */
    private Optional<Path> archive(MultipartFile file) throws IOException {
        try (InputStream in = file.getInputStream()) {
            if (!ModelArchive.isPacked(in.readNBytes(4))) {
                return Optional.empty();
            }
        }
        Path copy = Files.createTempFile(properties.data(), "archive-", ".part");
        file.transferTo(copy);
        if (ModelArchive.is(copy)) {
            return Optional.of(copy);
        }
        Files.delete(copy);
        return Optional.empty();
    }

    private String unpacked(
            String name, List<ModelFile> plain, List<Path> archives, List<FileStore.Kept> kept, Progress progress)
            throws IOException {
        List<ModelFile> found = new ArrayList<>(plain);
        try {
            for (Path archive : archives) {
                ModelArchive.unpack(
                        archive,
                        properties.largestModel().toBytes() * MOST_FILES,
                        (model, content) -> {
                            FileStore.Kept one = files.keep(content, properties.largestModel());
                            kept.add(one);
                            found.add(new ModelFile(one.hash(), model, one.size()));
                        },
                        progress);
            }
        } finally {
            delete(archives);
        }
        if (found.size() == 1) {
            return begun(content(found), progress);
        }
        List<Offers.Candidate> candidates = new ArrayList<>();
        for (ModelFile file : found) {
            candidates.add(candidate(file, progress));
        }
        return "/offers/" + offers.make(name, candidates).id();
    }

    /** A plan; or, where one file holds things that stand apart, where one chooses among them. */
    private String begun(PlanContent content, Progress progress) {
        PartedModel model = cuts.model(content.files(), progress);
        List<List<Integer>> apart = model.apart();
        if (content.files().size() > 1 || apart.size() == 1 || apart.size() > MOST_OFFERED) {
            return "/plans/" + create(content, progress).id();
        }
        ModelFile file = content.files().get(0);
        List<Offers.Candidate> things = new ArrayList<>();
        for (List<Integer> thing : apart) {
            progress.beat();
            things.add(thing(file, model, thing));
        }
        return "/offers/" + offers.make(file.name(), things).id();
    }

    private static Offers.Candidate thing(ModelFile file, PartedModel model, List<Integer> parts) {
        String first = model.parts().get(parts.get(0)).name();
        return drawn(
                file,
                parts.size() == 1 ? first : Words.format("%s and %d more", first, parts.size() - 1),
                parts,
                parts.stream().map(model.parts()::get).map(Part::mesh).toList());
    }

    private Offers.Candidate candidate(ModelFile file, Progress progress) {
        try {
            return drawn(
                    file,
                    file.name(),
                    List.of(),
                    cuts.model(List.of(file), progress).body().solids());
        } catch (Refusal unreadable) {
            return new Offers.Candidate(file, file.name(), List.of(), unreadable.getMessage(), false, new byte[0]);
        }
    }

    private static Offers.Candidate drawn(ModelFile file, String name, List<Integer> parts, List<Mesh> solids) {
        Body body = new Body(solids, 0);
        String size = Words.format(
                "%.1f × %.1f × %.1f mm",
                body.footprint().getWidth(),
                body.footprint().getHeight(),
                body.height().millimetres() - lowest(solids));
        return new Offers.Candidate(
                file, name, parts, size, true, MeshPainter.png(solids, PICTURE_WIDTH, PICTURE_HEIGHT));
    }

    /** mm */
    private static double lowest(List<Mesh> solids) {
        return solids.stream().mapToInt(Mesh::bottom).min().orElse(0) / 1000.0;
    }

    /** Begins what was chosen: one plan of all of it, aligned by their origins, or a plan each. */
    public Job take(Offers.Offer offer, List<Integer> chosen, boolean together) {
        List<Offers.Candidate> wanted = chosen.stream()
                .filter(i -> i >= 0 && i < offer.candidates().size())
                .map(i -> offer.candidates().get(i))
                .filter(Offers.Candidate::readable)
                .toList();
        if (wanted.isEmpty()) {
            throw new Refusal("Choose at least one of them.");
        }
        List<List<Offers.Candidate>> each =
                together ? List.of(wanted) : wanted.stream().map(List::of).toList();
        each.forEach(c -> requireRoom(files(c).size()));
        return jobs.start("Reading and cutting " + wanted.get(0).name(), progress -> {
            String last = "";
            for (List<Offers.Candidate> one : each) {
                last = create(one, offer, progress).id();
            }
            return each.size() == 1 ? "/plans/" + last : "/";
        });
    }

    private static List<ModelFile> files(List<Offers.Candidate> chosen) {
        return chosen.stream().map(Offers.Candidate::file).distinct().toList();
    }

    /** One plan of what was chosen; of a file whose things were chosen from, the rest is left out, and can be taken in again. */
    private PlanState create(List<Offers.Candidate> chosen, Offers.Offer offer, Progress progress) {
        PlanContent content = content(files(chosen));
        if (!offer.ofOneFile() || chosen.size() == offer.candidates().size()) {
            return create(content, progress);
        }
        PartedModel model = cuts.model(content.files(), progress);
        List<Integer> kept =
                chosen.stream().flatMap(c -> c.parts().stream()).sorted().toList();
        double lowest =
                lowest(kept.stream().map(p -> model.parts().get(p).mesh()).toList());
        PartNotes notes = PartNotes.NONE.hiding(
                IntStream.range(0, model.parts().size())
                        .filter(p -> !kept.contains(p))
                        .boxed()
                        .collect(Collectors.toSet()),
                true);
        if (lowest > 0) {
            notes = notes.moving(kept.stream().collect(Collectors.toMap(p -> p, p -> new Shift(0, 0, -lowest))));
        }
        String name = chosen.size() == 1
                ? chosen.get(0).name()
                : FileNames.stem(content.files().get(0).name());
        return create(name, content.with(notes), progress);
    }

    private static void delete(List<Path> files) throws IOException {
        for (Path file : files) {
            Files.deleteIfExists(file);
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

    private PlanContent content(List<ModelFile> files) {
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

    private static void requireRoom(int number) {
        if (number < 1 || number > MOST_FILES) {
            throw Refusal.of("A plan takes 1 to %d files, and %d were given; choose fewer.", MOST_FILES, number);
        }
    }

    private PlanState create(PlanContent content, Progress progress) {
        return create(FileNames.stem(content.files().get(0).name()), content, progress);
    }

    private PlanState create(String name, PlanContent content, Progress progress) {
        List<Part> parts = cuts.model(content.files(), progress).parts();
        PlanContent coloured = content.with(fileColours.begin(content.colours(), parts));
        cuts.cut(coloured, progress);
        return plans.create(name, coloured);
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
