package dev.tranche.app.work;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import dev.tranche.app.jobs.Jobs;
import dev.tranche.app.plans.ModelFile;
import dev.tranche.app.plans.PlanContent;
import dev.tranche.app.storage.FileNames;
import dev.tranche.app.storage.FileStore;
import dev.tranche.core.format.ModelReader;
import dev.tranche.core.format.PartedModel;
import dev.tranche.core.geometry.Body;
import dev.tranche.core.geometry.Placement;
import dev.tranche.core.geometry.Section;
import dev.tranche.core.geometry.Shift;
import dev.tranche.core.layer.CutModel;
import dev.tranche.core.layer.LayerGrid;
import dev.tranche.core.layer.UprightCut;
import dev.tranche.core.plan.Colouring;
import dev.tranche.core.plan.LayerSettings;
import dev.tranche.core.plate.Footprint;
import dev.tranche.core.speech.Progress;
import dev.tranche.core.units.Height;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.lang.ref.SoftReference;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.stereotype.Service;

/** Models read, cut and coloured, kept in memory by the hash of their content, and given up where it becomes scarce. */
@Service
public class ModelCuts {
    /** A triangle takes 36 bytes, and what is placed is held once more. */
    private static final long MOST_TRIANGLES =
            Math.max(4_000_000, Runtime.getRuntime().maxMemory() / 400);
    /** A point takes some 32 bytes, and what is counted once is held about twice. */
    private static final long MOST_POINTS =
            Math.max(6_000_000, Runtime.getRuntime().maxMemory() / 400);

    /** s */
    private static final int PATIENCE = 120;

    private final FileStore files;
    private final Jobs jobs;
    private final Cache<List<ModelFile>, PartedModel> models;
    /** What was read last, whatever its size: making a plan of it asks for it several times. */
    private volatile SoftReference<Read> lastRead = new SoftReference<>(null);

    private final Cache<Placed, Body> bodies;
    private final Cache<Key, Cut> cuts = Caffeine.newBuilder()
            .softValues()
            .maximumWeight(MOST_POINTS)
            .weigher((Key key, Cut cut) -> cut.points())
            .build();
    /**
     * What was asked for last is kept whatever its size, or a model too large for the caches would never be ready; until another is
     * read, which may need its room.
     */
    private volatile Latest latest = Latest.NONE;

    /** The last colouring of each cut: the next differs little from it. */
    private final Cache<Key, Colouring> colourings = Caffeine.newBuilder()
            .softValues()
            .maximumWeight(MOST_POINTS)
            // Colours divide what was cut: their outlines are about twice as long.
            .weigher((Key key, Colouring colouring) ->
                    2 * points(colouring.model().sections()))
            .build();

    @Autowired
    ModelCuts(FileStore files, Jobs jobs) {
        this(files, jobs, MOST_TRIANGLES);
    }

    ModelCuts(FileStore files, Jobs jobs, long mostTriangles) {
        this.files = files;
        this.jobs = jobs;
        models = Caffeine.newBuilder()
                .softValues()
                .maximumWeight(mostTriangles)
                .weigher(
                        (List<ModelFile> key, PartedModel model) -> model.body().triangles())
                .build();
        bodies = Caffeine.newBuilder()
                .softValues()
                .maximumWeight(mostTriangles)
                .weigher((Placed key, Body body) -> body.triangles())
                .build();
    }

    private record Latest(Key key, Cut cut, Colouring colouring) {
        static final Latest NONE = new Latest(null, null, null);

        boolean isOf(ModelFile file) {
            return key != null && key.model().files().contains(file);
        }
    }

    private record Read(List<ModelFile> files, PartedModel model) {}

    private record Placed(List<ModelFile> files, Placement placement, Map<Integer, Shift> shifts) {
        static Placed of(PlanContent content) {
            return new Placed(
                    content.files(), content.placement(), content.parts().shifts());
        }
    }

    private record Key(Placed model, Set<Integer> hidden, Height firstLayer, Height layerHeight) {
        static Key of(PlanContent content) {
            LayerSettings layers = content.colours().layers();
            return new Key(Placed.of(content), content.parts().hidden(), layers.firstLayer(), layers.layerHeight());
        }
    }

    /** A model in layers, from the front, and what it covers of a bed. */
    public record Cut(CutModel model, UprightCut upright, Footprint footprint) {
        int points() {
            return ModelCuts.points(model.sections());
        }
    }

    private static int points(List<Section> sections) {
        return 1 + sections.stream().mapToInt(s -> s.outline().getNumPoints()).sum();
    }

    /** Cuts a plan's model, or answers the cut at hand; {@code progress} hears layers done of all layers. */
    public Cut cut(PlanContent content, Progress progress) {
        Key key = Key.of(content);
        Cut known = known(key);
        if (known != null) {
            return known;
        }
        Body body = body(content, progress);
        LayerGrid grid = content.colours().layers().on(CutModel.height(body, key.hidden()));
        CutModel cut = CutModel.of(body, key.hidden(), grid, progress);
        Cut made = new Cut(cut, UprightCut.mostTelling(cut), Footprint.of(cut));
        cuts.put(key, made);
        latest = new Latest(key, made, null);
        return made;
    }

    private Cut known(Key key) {
        Latest last = latest;
        return key.equals(last.key()) ? last.cut() : cuts.getIfPresent(key);
    }

    private Colouring coloured(Key key) {
        Latest last = latest;
        return key.equals(last.key()) && last.colouring() != null ? last.colouring() : colourings.getIfPresent(key);
    }

    /** The colours of every layer; only what changed since the last call for this cut is worked out. */
    public Colouring colouring(PlanContent content, double lineWidth, Progress progress) {
        Cut cut = cut(content, progress);
        Key key = Key.of(content);
        Colouring last = coloured(key);
        if (last != null && last.model() == cut.model() && last.isOf(content.colours(), lineWidth)) {
            return last;
        }
        Colouring made = last != null && last.model() == cut.model()
                ? last.with(content.colours(), lineWidth)
                : Colouring.of(content.colours(), cut.model(), lineWidth, progress);
        colourings.put(key, made);
        latest = new Latest(key, cut, made);
        return made;
    }

    /** A plan's model as its files have it; {@code progress} hears bytes. */
    public PartedModel model(List<ModelFile> of, Progress progress) {
        PartedModel known = known(of);
        if (known == null) {
            known = of.size() == 1
                    ? read(of.get(0), progress)
                    : model(of.subList(0, of.size() - 1), progress)
                            .with(model(List.of(of.get(of.size() - 1)), progress));
            models.put(List.copyOf(of), known);
            lastRead = new SoftReference<>(new Read(List.copyOf(of), known));
        }
        return known;
    }

    private PartedModel known(List<ModelFile> of) {
        Read last = lastRead.get();
        return last != null && last.files().equals(of) ? last.model() : models.getIfPresent(of);
    }

    /** A plan's model, placed; {@code progress} hears bytes. */
    public Body body(PlanContent content, Progress progress) {
        Placed key = Placed.of(content);
        Body known = bodies.getIfPresent(key);
        if (known == null) {
            known = model(key.files(), progress).body().placed(key.placement()).moved(key.shifts());
            bodies.put(key, known);
        }
        return known;
    }

    /** As {@link #body}, for requests: what is not at hand is read by a worker while they wait. */
    public Body bodyAtHand(PlanContent content) {
        Body known = bodies.getIfPresent(Placed.of(content));
        return known != null
                ? known
                : jobs.await("Reading " + content.files().get(0).name(), PATIENCE, progress -> body(content, progress));
    }

    /** As {@link #model}, for requests. */
    public PartedModel modelAtHand(List<ModelFile> of) {
        PartedModel known = known(of);
        return known != null
                ? known
                : jobs.await("Reading " + of.get(0).name(), PATIENCE, progress -> model(of, progress));
    }

    private PartedModel read(ModelFile file, Progress progress) {
        if (!latest.isOf(file)) {
            latest = Latest.NONE;
        }
        Path path = files.path(file.hash());
        try (InputStream in = Files.newInputStream(path)) {
            return ModelReader.read(in, Files.size(path), progress).under(FileNames.stem(file.name()));
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** The grid of a plan's model, in other layers perhaps. */
    public LayerGrid grid(PlanContent content, LayerSettings layers) {
        Body body = bodyAtHand(content);
        return layers.on(CutModel.height(body, content.parts().hidden()));
    }

    /** As {@link #grid(PlanContent, LayerSettings)}, in the plan's own. */
    public LayerGrid grid(PlanContent content) {
        return grid(content, content.colours().layers());
    }
}
