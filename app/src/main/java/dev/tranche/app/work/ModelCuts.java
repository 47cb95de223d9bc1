package dev.tranche.app.work;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import dev.tranche.app.plans.PlanState;
import dev.tranche.app.storage.FileStore;
import dev.tranche.core.format.ModelReader;
import dev.tranche.core.geometry.Mesh;
import dev.tranche.core.geometry.Placement;
import dev.tranche.core.geometry.Repair;
import dev.tranche.core.layer.CutModel;
import dev.tranche.core.layer.LayerGrid;
import dev.tranche.core.layer.UprightCut;
import dev.tranche.core.plan.LayerSettings;
import dev.tranche.core.units.Progress;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Optional;
import org.springframework.stereotype.Service;

/** Models read and cut, kept in memory by the hash of their content while there is room. */
@Service
public class ModelCuts {
    private static final long MOST_TRIANGLES = 4_000_000;
    private static final long MOST_POINTS = 6_000_000;

    private final FileStore files;
    private final Cache<Placed, Mesh> meshes = Caffeine.newBuilder()
            .maximumWeight(MOST_TRIANGLES)
            .weigher((Placed key, Mesh mesh) -> mesh.triangles())
            .build();
    private final Cache<String, Repair.Report> examined =
            Caffeine.newBuilder().maximumSize(200).build();
    private final Cache<Key, Cut> cuts = Caffeine.newBuilder()
            .maximumWeight(MOST_POINTS)
            .weigher((Key key, Cut cut) -> 1
                    + cut.model().sections().stream()
                            .mapToInt(s -> s.outline().getNumPoints())
                            .sum())
            .build();

    ModelCuts(FileStore files) {
        this.files = files;
    }

    private record Placed(String hash, Placement placement) {}

    private record Key(Placed model, LayerSettings layers) {
        static Key of(PlanState plan, LayerSettings layers) {
            return new Key(new Placed(plan.model().hash(), plan.content().placement()), layers);
        }
    }

    /** A model in layers, from above and from the front. */
    public record Cut(CutModel model, UprightCut upright) {}

    /** The plan's cut, if it is at hand. */
    public Optional<Cut> ready(PlanState plan) {
        return Optional.ofNullable(
                cuts.getIfPresent(Key.of(plan, plan.content().colours().layers())));
    }

    /** Cuts the plan's model, or answers the cut at hand; {@code progress} hears layers done of all layers. */
    public Cut cut(PlanState plan, Progress progress) {
        return cut(Key.of(plan, plan.content().colours().layers()), progress);
    }

    /** As {@link #cut(PlanState, Progress)}, of a model that no plan has yet. */
    public Cut cut(String hash, LayerSettings layers, Progress progress) {
        return cut(new Key(new Placed(hash, Placement.AS_IS), layers), progress);
    }

    private Cut cut(Key key, Progress progress) {
        Cut known = cuts.getIfPresent(key);
        if (known != null) {
            return known;
        }
        Mesh mesh = mesh(key.model().hash(), key.model().placement(), Progress.UNHEARD);
        CutModel cut = CutModel.of(mesh, key.layers().on(mesh.height()), progress);
        Cut made = new Cut(cut, UprightCut.mostTelling(cut));
        cuts.put(key, made);
        return made;
    }

    /** Reads a kept model and places it; {@code progress} hears bytes. */
    public Mesh mesh(String hash, Placement placement, Progress progress) {
        Placed key = new Placed(hash, placement);
        Mesh known = meshes.getIfPresent(key);
        if (known != null) {
            return known;
        }
        Mesh mesh = placement.equals(Placement.AS_IS)
                ? read(hash, progress)
                : mesh(hash, Placement.AS_IS, progress).placed(placement);
        meshes.put(key, mesh);
        return mesh;
    }

    /** What was found in a model file, and what was put right. */
    public Repair.Report examined(String hash) {
        Repair.Report known = examined.getIfPresent(hash);
        if (known == null) {
            read(hash, Progress.UNHEARD);
            known = examined.getIfPresent(hash);
        }
        return known;
    }

    private Mesh read(String hash, Progress progress) {
        Path path = files.path(hash);
        try (InputStream in = Files.newInputStream(path)) {
            Repair repair = Repair.of(ModelReader.read(in, Files.size(path), progress));
            examined.put(hash, repair.report());
            return repair.mesh();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** The grid of a plan's model, in other layers perhaps; for models in memory or quickly read. */
    public LayerGrid grid(PlanState plan, LayerSettings layers) {
        return layers.on(mesh(plan.model().hash(), plan.content().placement(), Progress.UNHEARD)
                .height());
    }
}
