package dev.tranche.app.work;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import dev.tranche.app.plans.PlanState;
import dev.tranche.app.storage.FileStore;
import dev.tranche.core.format.StlReader;
import dev.tranche.core.geometry.Mesh;
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
    private final Cache<String, Mesh> meshes = Caffeine.newBuilder()
            .maximumWeight(MOST_TRIANGLES)
            .weigher((String hash, Mesh mesh) -> mesh.triangles())
            .build();
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

    private record Key(String hash, LayerSettings layers) {}

    /** A model in layers, from above and from the front. */
    public record Cut(CutModel model, UprightCut upright) {}

    public Optional<Cut> ready(PlanState.Model model, LayerSettings layers) {
        return Optional.ofNullable(cuts.getIfPresent(new Key(model.hash(), layers)));
    }

    /** Cuts a model, or answers the cut at hand; {@code progress} hears layers done of all layers. */
    public Cut cut(PlanState.Model model, LayerSettings layers, Progress progress) {
        Key key = new Key(model.hash(), layers);
        Cut known = cuts.getIfPresent(key);
        if (known != null) {
            return known;
        }
        Mesh mesh = mesh(model.hash(), Progress.UNHEARD);
        CutModel cut = CutModel.of(mesh, layers.on(mesh.height()), progress);
        Cut made = new Cut(cut, UprightCut.mostTelling(cut));
        cuts.put(key, made);
        return made;
    }

    /** Reads a kept model; {@code progress} hears bytes. */
    public Mesh mesh(String hash, Progress progress) {
        Mesh known = meshes.getIfPresent(hash);
        if (known != null) {
            return known;
        }
        Path path = files.path(hash);
        try (InputStream in = Files.newInputStream(path)) {
            Mesh mesh = StlReader.read(in, Files.size(path), progress);
            meshes.put(hash, mesh);
            return mesh;
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** The grid of a model that is in memory or quickly read. */
    public LayerGrid grid(PlanState.Model model, LayerSettings layers) {
        return layers.on(mesh(model.hash(), Progress.UNHEARD).height());
    }
}
