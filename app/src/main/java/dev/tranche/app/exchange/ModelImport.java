package dev.tranche.app.exchange;

import dev.tranche.app.jobs.Job;
import dev.tranche.app.jobs.Jobs;
import dev.tranche.app.plans.ModelFile;
import dev.tranche.app.plans.PlanContent;
import dev.tranche.app.plans.PlanState;
import dev.tranche.app.plans.Plans;
import dev.tranche.app.storage.FileNames;
import dev.tranche.app.storage.FileStore;
import dev.tranche.app.storage.TemporaryFiles;
import dev.tranche.app.storage.TrancheProperties;
import dev.tranche.app.work.ModelCuts;
import dev.tranche.core.format.ModelReader;
import dev.tranche.core.format.ObjLibrary;
import dev.tranche.core.format.Part;
import dev.tranche.core.layer.LayerGrid;
import dev.tranche.core.plan.Region;
import dev.tranche.core.speech.Progress;
import dev.tranche.core.speech.Refusal;
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
import org.springframework.stereotype.Service;
import org.springframework.web.multipart.MultipartFile;

/** From files that somebody gives to a plan: kept, unpacked, read and cut. */
@Service
public class ModelImport {
    /** s */
    private static final int PATIENCE = 300;

    private final Plans plans;
    private final FileStore files;
    private final TemporaryFiles temporary;
    private final GivenGcode givenGcode;
    private final ModelCuts cuts;
    private final Jobs jobs;
    private final TrancheProperties properties;
    private final FileColours fileColours;
    private final Coats coats;
    private final PlanFileReader planFiles;
    private final PlanMaker maker;
    private final Choosing choosing;

    ModelImport(
            Plans plans,
            FileStore files,
            TemporaryFiles temporary,
            GivenGcode givenGcode,
            ModelCuts cuts,
            Jobs jobs,
            TrancheProperties properties,
            FileColours fileColours,
            Coats coats,
            PlanFileReader planFiles,
            PlanMaker maker,
            Choosing choosing) {
        this.plans = plans;
        this.files = files;
        this.temporary = temporary;
        this.givenGcode = givenGcode;
        this.cuts = cuts;
        this.jobs = jobs;
        this.properties = properties;
        this.fileColours = fileColours;
        this.coats = coats;
        this.planFiles = planFiles;
        this.maker = maker;
        this.choosing = choosing;
    }

    /** Whether a file is a model, or holds some and no G-code, by its content. */
    public boolean isModel(MultipartFile file) throws IOException {
        return ModelReader.isModel(head(file), file.getSize()) && !givenGcode.isArchived(file);
    }

    /** Reads a plan file in the background; ends on its desk. */
    public Job open(MultipartFile file) throws IOException {
        Path copy = temporary.copy("plan-file", file);
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
        PlanContent content = maker.content(List.of(keep(file, new ArrayList<>())));
        PlanContent held = jobs.await(
                "Reading " + content.files().get(0).name(), PATIENCE, progress -> maker.held(content, progress));
        return maker.createNow(held);
    }

    /** Gives a plan a sliced file, unread. */
    public void giveGcode(PlanState plan, MultipartFile file) throws IOException {
        givenGcode.open(file, properties.largestGcode(), (in, name) -> {
            giveGcode(plan, in, name);
            return name;
        });
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
        List<FileStore.Kept> kept = new ArrayList<>();
        List<Path> archives = new ArrayList<>();
        try {
            List<ModelFile> plain = new ArrayList<>();
            Given sorted = Given.of(given);
            PlanMaker.requireRoom(sorted.models().size());
            for (MultipartFile file : sorted.models()) {
                archive(file)
                        .ifPresentOrElse(archives::add, () -> plain.add(keepUnchecked(file, sorted.library(), kept)));
            }
            if (archives.isEmpty()) {
                PlanContent content = maker.content(plain);
                return jobs.start(
                        "Reading and cutting " + plain.get(0).name(),
                        orTakenBack(kept, progress -> choosing.begun(content, progress)));
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
            PlanState plan =
                    maker.create(maker.content(List.of(new ModelFile(kept.hash(), name, kept.size()))), progress);
            then.with(plan, progress);
            return "/plans/" + plan.id();
        });
    }

    /** Models, and what the material libraries and pictures given with them say; those alone are given as models. */
    private record Given(List<MultipartFile> models, ObjLibrary library) {
        static Given of(List<MultipartFile> files) throws IOException {
            List<MultipartFile> models = new ArrayList<>();
            List<MultipartFile> pictures = new ArrayList<>();
            ObjLibrary library = new ObjLibrary();
            for (MultipartFile file : files) {
                byte[] head = head(file);
                if (ModelReader.isModel(head, file.getSize())) {
                    models.add(file);
                } else if (ObjLibrary.is(head)) {
                    try (InputStream in = file.getInputStream()) {
                        library.add(FileNames.shown(file.getOriginalFilename()), in);
                    }
                } else if (ObjLibrary.isPicture(head)) {
                    pictures.add(file);
                } else {
                    models.add(file);
                }
            }
            for (MultipartFile picture : pictures) {
                try (InputStream in = picture.getInputStream()) {
                    library.addPicture(FileNames.shown(picture.getOriginalFilename()), in);
                }
            }
            return new Given(models.isEmpty() ? files : models, library);
        }
    }

    private static byte[] head(MultipartFile file) throws IOException {
        try (InputStream in = file.getInputStream()) {
            return in.readNBytes(ModelReader.HEAD);
        }
    }

    private ModelFile keepUnchecked(MultipartFile file, ObjLibrary library, List<FileStore.Kept> kept) {
        try {
            return keep(file, library, kept);
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
        Path copy = temporary.copy("archive", file);
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
                        properties.largestModel().toBytes() * PlanMaker.MOST_FILES,
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
        return choosing.among(name, found, progress);
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

    /** Adds a file to a plan, aligned by its own origin. */
    public Job add(PlanState plan, long seen, MultipartFile file) throws IOException {
        if (plan.content().files().size() >= PlanMaker.MOST_FILES) {
            throw Refusal.of("A plan takes at most %d files.", PlanMaker.MOST_FILES);
        }
        List<FileStore.Kept> keeping = new ArrayList<>();
        ModelFile kept = keep(file, keeping);
        return jobs.start("Reading " + kept.name(), orTakenBack(keeping, progress -> {
            int before = cuts.model(plan.content().files(), progress).parts().size();
            PlanContent more = plan.content().plus(kept);
            List<Part> all = cuts.model(more.files(), progress).parts();
            cuts.cut(more, progress);
            List<Region> painted = coats.begin(more, before, progress);
            plans.editAll(
                    plan.id(),
                    seen,
                    "add " + kept.name(),
                    c -> Coats.with(
                            c.plus(kept).with(fileColours.add(c.colours(), all.subList(before, all.size()), before)),
                            painted));
            return "/plans/" + plan.id() + "?side=parts";
        }));
    }

    private ModelFile keep(MultipartFile file, List<FileStore.Kept> keeping) throws IOException {
        return keep(file, new ObjLibrary(), keeping);
    }

    private ModelFile keep(MultipartFile file, ObjLibrary library, List<FileStore.Kept> keeping) throws IOException {
        byte[] head = head(file);
        boolean obj = ModelReader.isObj(head, file.getSize());
        try (InputStream in = file.getInputStream()) {
            FileStore.Kept kept =
                    files.keep(obj ? library.colours("", head).before(in) : in, properties.largestModel());
            keeping.add(kept);
            return new ModelFile(kept.hash(), FileNames.shown(file.getOriginalFilename()), kept.size());
        }
    }
}
